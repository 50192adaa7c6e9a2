// Passes of other websites (JWT, RFC 7519; signed by JWS, RFC 7515; algorithms of RFC 7518): whom they let in, where, for how long, and why not. They
// are made here by jose, a library for them, as a website's own server would.
import { execFileSync, spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { generateKeyPairSync, randomUUID, type KeyObject } from 'node:crypto';
import { exportJWK, exportSPKI, SignJWT, UnsecuredJWT, type JWTPayload } from 'jose';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { sql } from '#server/db/client';
import { given } from './given';
import { client, document, member, origin, staff, type Client, type DocumentJson, type Entry } from './help';

const website = `https://club-${process.pid}.example.org`;
let boss: Client;
let friends: string;
let wardens: string;
let paper: DocumentJson;
let made: { id: string; key: string; secret: string };

const bytesOf = (secret: string) => new TextEncoder().encode(secret);
interface Signed {
	claims?: JWTPayload;
	secret?: string;
	key?: KeyObject;
	alg?: string;
	seconds?: number;
	kid?: string;
}
/** A pass as the website makes it; what is said differs from what is right. */
function pass({ claims = {}, secret = made.secret, key, alg = 'HS256', seconds = 120, kid }: Signed = {}): Promise<string> {
	const now = Math.floor(Date.now() / 1000);
	return new SignJWT({
		iss: website,
		aud: origin,
		sub: 'member-4711',
		name: 'Ada Lock',
		groups: [friends],
		iat: now,
		exp: now + seconds,
		jti: randomUUID(),
		...claims
	})
		.setProtectedHeader({ alg, ...(kid ? { kid } : {}) })
		.sign(key ?? bytesOf(secret));
}
const show = (token: string, slug = paper.slug, from = website) =>
	fetch(`${origin}/embed/${slug}/pass`, {
		method: 'POST',
		headers: { 'content-type': 'application/json', origin, 'sec-fetch-site': 'same-origin' },
		body: JSON.stringify({ pass: token, from })
	});
/** The cookie that a frame has after its pass was taken. */
const frame = async (token: string, slug = paper.slug) => {
	const response = await show(token, slug);
	if (response.status !== 204) throw new Error(await response.text());
	return client('', { cookie: response.headers.getSetCookie()[0]!.split(';')[0]! });
};
const why = async (response: Response | Promise<Response>) => {
	const answer = await response;
	const { code, title } = (await answer.json()) as { code: string; title: string };
	return `${answer.status} ${code}: ${title}`;
};

beforeAll(async () => {
	boss = await staff();
	const group = async (name: string) => (await boss.api<{ slug: string }>('POST', '/groups', { name: `${name} ${process.pid}` })).slug;
	[friends, wardens] = [await group('Pass friends'), await group('Pass wardens')];
	paper = await document({ position: 'keyed', groups: [friends] });
	made = await boss.api('POST', '/websites', { origin: website, groups: [friends] });
});
afterAll(async () => {
	await boss.api('DELETE', `/websites/${made.id}`).catch(() => {});
});

describe('a pass', () => {
	it('lets in as a member of its groups would be: frame, file, pages, words, and what the room tells', async () => {
		const response = await show(await pass());
		expect(response.status).toBe(204);
		// for this document alone, in frames of this website alone, out of reach of scripts
		for (const [i, path] of [`/d/${paper.slug}`, `/embed/${paper.slug}`].entries())
			expect(response.headers.getSetCookie()[i]).toMatch(new RegExp(`^ianua_pass=[\\w-]{40,}; Path=${path}; HttpOnly; Secure; SameSite=None; Partitioned$`));
		const reader = await frame(await pass());
		for (const path of [
			`/embed/${paper.slug}`,
			`/d/${paper.slug}/file`,
			`/d/${paper.slug}/leaf/1.webp?w=800`,
			`/d/${paper.slug}/leaf/1.json`,
			`/d/${paper.slug}/text`
		]) {
			const got = await reader.get(path);
			expect([path, got.status]).toEqual([path, 200]);
			await got.arrayBuffer();
		}
		expect((await client('', {}).get(`/d/${paper.slug}/file`)).status).toBe(401);
	});
	it('is taken from a form of its website too, in a frame alone; why it was not is told beside the frame', async () => {
		const post = (token: string, headers: Record<string, string> = {}, slug = paper.slug) =>
			fetch(`${origin}/embed/${slug}/pass`, {
				method: 'POST',
				redirect: 'manual',
				headers: { origin: website, 'sec-fetch-site': 'cross-site', 'sec-fetch-dest': 'iframe', ...headers },
				body: new URLSearchParams({ pass: token })
			});
		const led = await post(await pass());
		expect([led.status, led.headers.get('location'), led.headers.getSetCookie().length]).toEqual([303, `/embed/${paper.slug}`, 2]);
		const reader = client('', { cookie: led.headers.getSetCookie()[0]!.split(';')[0]! });
		expect((await reader.get(`/d/${paper.slug}/file`)).status).toBe(200);
		// whose form it was is what the browser says, not the pass
		const refusal = async (answer: Promise<Response>) => {
			const { status, headers } = await answer;
			expect([status, headers.getSetCookie()]).toEqual([303, []]);
			return new URLSearchParams(headers.get('location')!.split('#')[1]).get('pass-refused');
		};
		expect(await refusal(post(await pass(), { origin: 'https://other.example.net' }))).toContain('it came from https://other.example.net');
		expect(await refusal(post(await pass(), { origin: 'null' }))).toContain('does not say which website');
		expect(await refusal(post('no pass'))).toContain('it is no JWT');
		expect(await refusal(post(await pass(), {}, 'no-such-document'))).toBe(null);
		// in a window of its own somebody would go on as somebody else
		expect((await post(await pass(), { 'sec-fetch-dest': 'document' })).status).toBe(403);
		// nothing else takes a form of another website, nor does this one without a pass
		const form = {
			method: 'POST',
			headers: { origin: website, 'sec-fetch-site': 'cross-site', 'sec-fetch-dest': 'iframe' },
			body: new URLSearchParams({ pass: 'x' })
		};
		expect((await fetch(`${origin}/d/${paper.slug}/knock`, form)).status).toBe(403);
		expect((await fetch(`${origin}/embed/${paper.slug}/pass`, { ...form, body: new URLSearchParams() })).status).toBe(422);
	});
	it('stands in the ledger with its website and the person', async () => {
		const own = await document({ position: 'keyed', groups: [friends] });
		const reader = await frame(await pass({ claims: { sub: 'member-7', name: 'Ben Weir' } }), own.slug);
		await (await reader.get(`/d/${own.slug}/file`)).arrayBuffer();
		await (await reader.get(`/d/${own.slug}/file?save`)).arrayBuffer();
		const { items } = await boss.api<{ items: (Entry & { who: { website?: string; name?: string }; source: { kind: string; site?: string } })[] }>(
			'GET',
			`/documents/${own.slug}/ledger`
		);
		expect(items.map((e) => e.kind).sort()).toEqual(['opened', 'saved']);
		for (const entry of items)
			expect(entry).toMatchObject({
				who: { kind: 'member', name: 'Ben Weir', website },
				source: { kind: 'outside', site: new URL(website).host },
				staff: false
			});
		// two people of the website are two readers, and one who comes again is one
		const again = await frame(await pass({ claims: { sub: 'member-7', name: 'Ben Weir' } }), own.slug);
		await (await again.get(`/d/${own.slug}/file`)).arrayBuffer();
		const rows = await sql()<{ reader: string }[]>`select distinct reader from ledger where document_id = (select id from document where slug = ${own.slug})`;
		expect(rows).toHaveLength(1);
		expect(rows[0]!.reader).toMatch(/^w:/);
	});
	it('lets in nowhere else: not to another document, page, the desk, the API or their own page', async () => {
		const other = await document({ position: 'keyed', groups: [friends] });
		const reader = await frame(await pass());
		expect((await reader.get(`/d/${other.slug}/file`)).status).toBe(401);
		expect((await reader.send('GET', '/api/v1/documents')).status).toBe(401);
		expect((await reader.get('/me')).status).toBe(303);
		expect((await reader.get('/desk/documents')).status).toBe(303);
	});
	it('keeps to the door: its groups, whether saving is allowed, and what is shut', async () => {
		const forWardens = await document({ position: 'keyed', groups: [wardens] });
		const readOnly = await document({ position: 'keyed', groups: [friends], allow: { save: false, print: true } });
		const shut = await document({ position: 'shut' });
		expect((await (await frame(await pass(), forWardens.slug)).get(`/embed/${forWardens.slug}`)).status).toBe(403);
		const reader = await frame(await pass(), readOnly.slug);
		expect([(await reader.get(`/embed/${readOnly.slug}`)).status, (await reader.get(`/d/${readOnly.slug}/file?save`)).status]).toEqual([200, 403]);
		expect((await (await frame(await pass(), shut.slug)).get(`/d/${shut.slug}/file`)).status).toBe(404);
	});
	it('of somebody who is signed in here changes nothing for them', async () => {
		const wren = await member();
		const grant = (await show(await pass())).headers.getSetCookie()[0]!.split(';')[0]!;
		const both = client('', { cookie: `${wren.headers.cookie!}; ${grant}` });
		expect((await both.get(`/d/${paper.slug}/file`)).status).toBe(403);
	});
});

describe('a pass is refused, and why is told to whoever makes it', () => {
	it('where it was taken before, is over, lasts too long, or is for another', async () => {
		const once = await pass();
		expect((await show(once)).status).toBe(204);
		expect(await why(show(once))).toMatch(/^401 pass-refused: The pass was not taken: it was taken before/);
		const now = Math.floor(Date.now() / 1000);
		expect(await why(show(await pass({ claims: { iat: now - 200, exp: now - 31 } })))).toMatch(/“exp” is over/);
		expect(await why(show(await pass({ seconds: 301 })))).toMatch(/at most 300 seconds/);
		expect(await why(show(await pass({ claims: { aud: 'https://elsewhere.example.org' } })))).toMatch(/“aud” has to be/);
		expect(await why(show(await pass({ claims: { iss: 'https://nobody.example.org' } })))).toMatch(/no website https:\/\/nobody/);
		expect(await why(show(await pass({ claims: { groups: [friends, wardens] } })))).toMatch(new RegExp(`may not grant “${wardens}”`));
		for (const missing of ['sub', 'jti', 'iat', 'exp', 'groups'])
			expect([missing, await why(show(await pass({ claims: { [missing]: undefined } })))]).toEqual([missing, expect.stringContaining(`“${missing}”`)]);
	});
	it('that came from the page of another website', async () => {
		expect(await why(show(await pass(), paper.slug, 'https://thief.example.org'))).toMatch(/it came from https:\/\/thief/);
		// and no other website can hand it over itself
		const foreign = await fetch(`${origin}/embed/${paper.slug}/pass`, { method: 'POST', headers: { 'content-type': 'application/json', origin: website, 'sec-fetch-site': 'cross-site' }, body: JSON.stringify({ pass: await pass(), from: website }) }); // prettier-ignore
		expect(foreign.status).toBe(403);
	});
	it('that nobody signed, or somebody else', async () => {
		const now = Math.floor(Date.now() / 1000);
		const claims = { iss: website, aud: origin, sub: 'x', groups: [friends], iat: now, exp: now + 60, jti: randomUUID() };
		// RFC 8725, section 2.1: “none”
		expect(await why(show(new UnsecuredJWT(claims).encode()))).toMatch(/signed by none; HS256, RS256, ES256 are taken/);
		expect(await why(show(await pass({ secret: 'another secret of thirty-two bytes' })))).toMatch(/its signature is none of a key/);
		expect(await why(show(await pass({ alg: 'HS512' })))).toMatch(/signed by HS512/);
		const [head, body] = (await pass()).split('.') as [string, string];
		expect(await why(show(`${head}.${body}.`))).toMatch(/signature/);
		const forged = Buffer.from(JSON.stringify({ ...claims, groups: [friends, wardens] })).toString('base64url');
		expect(await why(show(`${head}.${forged}.${(await pass()).split('.')[2]!}`))).toMatch(/signature/);
		expect(await why(show('not a token'))).toMatch(/it is no JWT/);
		expect((await show('')).status).toBe(422);
	});
});

describe('the examples in docs/passes.md', () => {
	const guide = readFileSync('docs/passes.md', 'utf8');
	const codeOf = (language: string) => new RegExp(`\`\`\`${language}\\n([\\s\\S]*?)\`\`\``).exec(guide)![1]!;
	const person = () => JSON.stringify({ id: 'member-é', name: 'Zoë Läck', groups: [friends] });
	const programs = {
		js: () => [
			'node',
			'--input-type=module',
			'-e',
			`${codeOf('js')}\nconsole.log(pass(${JSON.stringify(made.secret)}, { site: ${JSON.stringify(origin)}, website: ${JSON.stringify(website)}, person: ${person()} }))`
		],
		python: () => [
			'python3',
			'-c',
			`${codeOf('python')}\nprint(make_pass(${JSON.stringify(made.secret)}, ${JSON.stringify(origin)}, ${JSON.stringify(website)}, ${person()}))`
		],
		php: () => [
			'php',
			'-r',
			`${codeOf('php')}\necho make_pass(${JSON.stringify(made.secret)}, ${JSON.stringify(origin)}, ${JSON.stringify(website)}, json_decode('${person()}', true));`
		]
	};
	for (const language of ['js', 'python', 'php'] as const)
		it.skipIf(language !== 'js' && spawnSync(language === 'php' ? 'php' : 'python3', ['--version']).status !== 0)(
			`make a pass that is taken: ${language}`,
			async () => {
				const [program, ...args] = programs[language]();
				const token = execFileSync(program!, args, { encoding: 'utf8' }).trim();
				expect((await show(token)).status).toBe(204);
				const [row] = await sql()<
					{ name: string }[]
				>`select p.name from website_person p join website w on w.id = p.website_id where w.origin = ${website} and p.sub = 'member-é'`;
				expect(row!.name).toBe('Zoë Läck');
			}
		);
});

describe('keys', () => {
	const rsa = generateKeyPairSync('rsa', { modulusLength: 2048 });
	const ec = generateKeyPairSync('ec', { namedCurve: 'P-256' });

	it('of the website’s own: PEM, JWK, and a set at an address; never a private one', async () => {
		const add = async (n: string, key: object) => {
			const at = `https://${n}-${process.pid}.example.org`;
			const { id } = await boss.api<{ id: string }>('POST', '/websites', { origin: at, groups: [friends], key });
			return { at, id };
		};
		const pem = await add('pem', { kind: 'public', value: await exportSPKI(rsa.publicKey) });
		expect((await show(await pass({ claims: { iss: pem.at }, key: rsa.privateKey, alg: 'RS256' }), paper.slug, pem.at)).status).toBe(204);
		// RFC 8725, section 2.1: a public key taken for a secret
		const confused = await pass({ claims: { iss: pem.at }, secret: (await exportSPKI(rsa.publicKey)).trim() });
		expect(await why(show(confused, paper.slug, pem.at))).toMatch(/signature/);
		const jwk = await add('jwk', { kind: 'public', value: JSON.stringify(await exportJWK(ec.publicKey)) });
		expect((await show(await pass({ claims: { iss: jwk.at }, key: ec.privateKey, alg: 'ES256' }), paper.slug, jwk.at)).status).toBe(204);
		expect(await why(show(await pass({ claims: { iss: jwk.at }, key: rsa.privateKey, alg: 'RS256' }), paper.slug, jwk.at))).toMatch(/signature/);
		const keys = {
			keys: [
				{ ...(await exportJWK(rsa.publicKey)), kid: 'one', alg: 'RS256' },
				{ ...(await exportJWK(ec.publicKey)), kid: 'two', alg: 'ES256' }
			]
		};
		const server = createServer((_, response) => response.setHeader('content-type', 'application/json').end(JSON.stringify(keys))).listen(
			given.webhook,
			'127.0.0.1'
		);
		try {
			const set = await add('set', { kind: 'jwks', value: `http://127.0.0.1:${given.webhook}/jwks.json` });
			expect((await show(await pass({ claims: { iss: set.at }, key: ec.privateKey, alg: 'ES256', kid: 'two' }), paper.slug, set.at)).status).toBe(204);
			expect((await show(await pass({ claims: { iss: set.at }, key: rsa.privateKey, alg: 'RS256', kid: 'one' }), paper.slug, set.at)).status).toBe(204);
			expect(await why(show(await pass({ claims: { iss: set.at }, key: rsa.privateKey, alg: 'RS256', kid: 'three' }), paper.slug, set.at))).toMatch(
				/signature/
			);
			await boss.api('DELETE', `/websites/${set.id}`);
		} finally {
			server.close();
		}
		for (const { id } of [pem, jwk]) await boss.api('DELETE', `/websites/${id}`);
		const refused = async (key: object) =>
			(await boss.send('POST', '/api/v1/websites', { origin: 'https://private.example.org', groups: [friends], key })).status;
		expect(await refused({ kind: 'public', value: JSON.stringify(await exportJWK(ec.privateKey)) })).toBe(422);
		expect(await refused({ kind: 'public', value: rsa.privateKey.export({ type: 'pkcs8', format: 'pem' }) })).toBe(422);
		expect(await refused({ kind: 'secret', value: 'mine' })).toBe(422);
		expect(await refused({ kind: 'jwks', value: 'file:///etc/passwd' })).toBe(422);
	});
	it('turn about: two hold at a time; withdrawn, it ends what it let in at the next request', async () => {
		const { key, secret } = await boss.api<{ key: string; secret: string }>('POST', `/websites/${made.id}/keys`, { kind: 'secret' });
		const [before, after] = [await frame(await pass()), await frame(await pass({ secret }))];
		expect((await boss.send('POST', `/api/v1/websites/${made.id}/keys`, { kind: 'secret' })).status).toBe(409);
		await boss.api('DELETE', `/websites/${made.id}/keys/${made.key}`);
		expect((await before.get(`/d/${paper.slug}/file`)).status).toBe(401);
		expect((await after.get(`/d/${paper.slug}/file`)).status).toBe(200);
		expect(await why(show(await pass()))).toMatch(/signature/);
		made = { ...made, key, secret };
	});
	it('and secrets are told once, groups and the website taken away at once', async () => {
		const reader = await frame(await pass());
		const { items } = await boss.api<{ items: { id: string; keys: { value: string | null }[]; people: number }[] }>('GET', '/websites');
		const listed = items.find(({ id }) => id === made.id)!;
		expect([listed.keys.map((k) => k.value), listed.people > 1]).toEqual([[null], true]);
		expect(JSON.stringify(items)).not.toContain(made.secret);
		await boss.api('PATCH', `/websites/${made.id}`, { groups: [wardens] });
		expect((await reader.get(`/d/${paper.slug}/file`)).status).toBe(403);
		const { before } = await boss.api<{ before: { groups: string[] } }>('PATCH', `/websites/${made.id}`, { groups: [friends] });
		expect(before.groups).toEqual([wardens]);
		expect((await reader.get(`/d/${paper.slug}/file`)).status).toBe(200);
		await boss.api('DELETE', `/websites/${made.id}`);
		expect((await reader.get(`/d/${paper.slug}/file`)).status).toBe(401);
		// it comes back with a key of its own; what the old one let in stays out
		made = await boss.api('POST', '/websites', { origin: website, groups: [friends] });
		expect((await reader.get(`/d/${paper.slug}/file`)).status).toBe(401);
		expect((await boss.send('POST', '/api/v1/websites', { origin: website, groups: [friends] })).status).toBe(409);
		for (const wrong of ['https://club.example.org/path', 'club.example.org', 'ftp://club.example.org'])
			expect([wrong, (await boss.send('POST', '/api/v1/websites', { origin: wrong, groups: [friends] })).status]).toEqual([wrong, 422]);
	});
	it('are for owners alone', async () => {
		const editor = await member();
		await sql()`update person set role = 'editor' where email = ${editor.email}`;
		expect((await editor.send('GET', '/api/v1/websites')).status).toBe(403);
		expect((await editor.send('POST', '/api/v1/websites', { origin: 'https://x.example.org', groups: [friends] })).status).toBe(403);
	});
});
