// The API's description of itself, made of its operations.
import { Type, type TSchema } from '@sinclair/typebox';
import examples from './examples.json' with { type: 'json' };
import guide from './guide.md?raw';
import { selectable, type Operation } from './contract';
import { operations, subjects } from './operations';

const Problem = Type.Object(
	{
		type: Type.String(),
		title: Type.String({ description: 'a sentence for a person' }),
		status: Type.Integer(),
		code: Type.String({ description: 'the catalogue’s code' }),
		facts: Type.Optional(Type.Record(Type.String(), Type.String())),
		requestId: Type.Optional(Type.String())
	},
	{ description: 'RFC 9457' }
);

/** What was asked of an operation and what it answered, in the demo (scripts/examples.ts). */
export interface Example {
	readonly body?: unknown;
	readonly answer?: unknown;
}

/** What stands in the braces of an address, by what it begins with. */
const named: Record<string, string> = {
	documents: 'the slug of a document: the last part of its address /d/…',
	groups: 'the slug of a group',
	pages: 'the path of a page, / or /water-levels: with its slashes encoded in the address, %2F or %2Fwater-levels',
	members: 'the id of a member',
	keys: 'the id of a key',
	knocks: 'the id of a knock',
	tokens: 'the id of a token',
	filters: 'the id of a saved filter',
	intake: 'the id of an upload, as its beginning answered it',
	'former-addresses': 'the id of a former address',
	webhooks: 'the id of a program that is told',
	messages: 'the id of a message to it',
	websites: 'the id of a website that may give passes'
};

/** Which thing stands in the braces of that name. */
function whichOf(path: string, name: string): string {
	const part = path.split('/').find((_, i, parts) => parts[i + 1]?.startsWith(`{${name}}`)) ?? '';
	const words = named[part];
	if (!words) throw new Error(`nobody says what stands in the braces of ${path}`);
	return words;
}

/** The schemas that have a name (`$id`: those that hold themselves), taken out of the description to where its references lead (OpenAPI 3.1, 4.8.23). */
function withoutNames(description: object, schemas: Record<string, unknown>): unknown {
	const walk = (value: unknown): unknown => {
		if (Array.isArray(value)) return value.map(walk);
		if (typeof value !== 'object' || value === null) return value;
		const { $id, ...rest } = value as { $id?: unknown; $ref?: unknown };
		if (typeof rest.$ref === 'string' && !rest.$ref.startsWith('#')) return { $ref: `#/components/schemas/${rest.$ref}` };
		const walked = Object.fromEntries(Object.entries(rest).map(([name, v]) => [name, walk(v)]));
		if (typeof $id !== 'string') return walked;
		schemas[$id] = walked;
		return { $ref: `#/components/schemas/${$id}` };
	};
	return walk(description);
}

const subjectOf = new Map(subjects.flatMap(({ name, operations }) => operations.map((o) => [`${o.method} ${o.path}`, name])));

/** Addresses at which something is to be read. */
const read = new Set(operations.filter((o) => o.method === 'get').map((o) => o.path));

const inHeader = (name: string, description: string) => ({ name, in: 'header', required: false, description, schema: { type: 'string' } });

/** What every operation of a kind takes beside what its contract says (http/api.ts: route). */
function common({ method, path, answer }: Operation): object[] {
	if (method === 'post')
		return [
			inHeader(
				'Idempotency-Key',
				'a text of your own for this press, 8 to 255 letters: sent again within 24 hours it is not carried out again, and gets the answer that it had'
			)
		];
	if (method !== 'get' && !read.has(path)) return [];
	if (method !== 'get') return [inHeader('If-Match', 'the ETag of the thing as you know it: where it is another by now, nothing is changed (412)')];
	const thing = answer && selectable(answer);
	if (!thing) return [];
	return [
		{
			name: 'fields',
			in: 'query',
			required: false,
			description: 'the fields that are wanted, with commas between them; all where it is not given',
			schema: { type: 'string', pattern: '^\\w+(,\\w+)*$' }
		},
		inHeader('If-None-Match', 'the ETag of the answer that you have: where it still holds, you get 304 without a body')
	];
}

/** The OpenAPI 3.1 description of the operations (its schemas are JSON Schema as they are). */
export function openApi(origin: string) {
	const paths: Record<string, Record<string, unknown>> = {};
	for (const o of operations) {
		const names = [...o.path.matchAll(/\{(\w+)\}/g)].map((m) => m[1]!);
		const query = (o.query as { properties?: Record<string, TSchema>; required?: string[] } | undefined) ?? {};
		const { body, answer } = (examples as Record<string, Example | undefined>)[`${o.method} ${o.path}`] ?? {};
		const content: Record<string, unknown> = {};
		if (o.body) content['application/json'] = { schema: o.body, ...(typeof body === 'object' ? { example: body } : {}) };
		if (o.csv) content['text/csv'] = { schema: { type: 'string' }, example: body };
		if (o.form)
			content['multipart/form-data'] = {
				schema: {
					type: 'object',
					required: ['file'],
					properties: { file: { type: 'string', format: 'binary' }, ...Object.fromEntries(o.form.map((f) => [f, { type: 'string' }])) }
				}
			};
		(paths[o.path] ??= {})[o.method] = {
			tags: [subjectOf.get(`${o.method} ${o.path}`)],
			summary: o.words,
			operationId: `${o.method}${o.path.replace(/[{}]/g, '').replace(/[/.-](\w)/g, (_, c: string) => c.toUpperCase())}`,
			parameters: [
				...names.map((name) => ({ name, in: 'path', required: true, description: whichOf(o.path, name), schema: { type: 'string' } })),
				...Object.entries(query.properties ?? {}).map(([name, { description, ...schema }]) => ({
					name,
					in: 'query',
					required: query.required?.includes(name) ?? false,
					description,
					schema
				})),
				...common(o)
			],
			...(Object.keys(content).length ? { requestBody: { required: true, content } } : {}),
			responses: {
				[o.status]: {
					description: o.words,
					...(o.answer && o.method === 'get' ? { headers: { ETag: { description: 'changes when the answer does', schema: { type: 'string' } } } } : {}),
					...(o.answer ? { content: { 'application/json': { schema: o.answer, ...(answer ? { example: answer } : {}) } } } : {})
				},
				default: { description: 'What was wrong, in words', content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } } }
			}
		};
	}
	const schemas: Record<string, unknown> = { Problem };
	return {
		openapi: '3.1.0',
		info: { title: 'Ianua', version: '1', description: guide },
		servers: [{ url: `${origin}/api/v1` }],
		tags: subjects.map(({ name, words }) => ({ name, description: words })),
		security: [{ bearer: [] }, { session: [] }],
		paths: withoutNames(paths, schemas),
		components: {
			schemas,
			securitySchemes: { bearer: { type: 'http', scheme: 'bearer' }, session: { type: 'apiKey', in: 'cookie', name: 'ianua.session_token' } }
		}
	};
}
