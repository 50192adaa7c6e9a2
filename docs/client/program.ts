// A program elsewhere: it knows of the site what the site's description says of itself (openapi-typescript makes api.d.ts of it), and does a
// day's work by it. tests/server/guide.test.ts compiles it and runs it.
import { readFileSync } from 'node:fs';
import createClient from 'openapi-fetch';
import type { paths } from './api.js';

const { IANUA, TOKEN, FILE } = process.env as Record<'IANUA' | 'TOKEN' | 'FILE', string>;
const api = createClient<paths>({ baseUrl: `${IANUA}/api/v1`, headers: { authorization: `Bearer ${TOKEN}` } });
let calls = 0;

/** What a call gave, or the end of the program with what the site said. */
async function given<T>(call: Promise<{ data?: T; error?: { code: string; title: string }; response: Response }>): Promise<T> {
	const { data, error, response } = await call;
	calls++;
	if (!response.ok || data === undefined) throw new Error(`${response.status} ${error?.code ?? ''}: ${error?.title ?? ''}`);
	return data;
}

function expect(what: string, holds: boolean): void {
	if (!holds) throw new Error(`it does not hold: ${what}`);
}

/** A multipart form with the file; the generator has a text in its place. */
const form = (fields: Record<string, string>) => ({
	body: fields as { file: string },
	bodySerializer: () => {
		const made = new FormData();
		for (const [name, value] of Object.entries(fields)) made.append(name, value);
		made.append('file', new Blob([readFileSync(FILE)]), `${fields.title}.pdf`);
		return made;
	}
});

// documents
const title = `By a program ${Date.now()}`;
const made = await given(api.POST('/documents', form({ title, folder: 'Programs' })));
const { slug } = made;
const one = { params: { path: { slug } } };
expect('it is sound', made.condition.status === 'sound');
expect(
	'it is listed',
	(await given(api.GET('/documents', { params: { query: { folder: ['Programs'], limit: 200 } } }))).items.some((d) => d.slug === slug)
);
expect('its title', (await given(api.GET('/documents/{slug}', one))).title === title);
await given(api.PATCH('/documents/{slug}', { ...one, body: { description: 'Brought in by a program', topics: ['programs'] } }));
expect(
	'its folder is there',
	(await given(api.GET('/folders'))).items.some((folder) => folder.name === 'Programs')
);
expect(
	'its topic is there',
	(await given(api.GET('/topics'))).items.some((topic) => topic.name === 'programs')
);
expect('it is found', (await given(api.GET('/find', { params: { query: { q: title } } }))).items.length > 0);
await given(api.GET('/documents/{slug}/reach', one));
await given(api.GET('/documents/{slug}/ledger', one));
await given(api.GET('/icons', { params: { query: { q: 'map' } } }));
await given(api.GET('/former-addresses'));
await given(api.GET('/intake'));

// people and doors
const group = await given(api.POST('/groups', { body: { name: `Programs ${Date.now()}`, description: '' } }));
const email = `program-${Date.now()}@example.org`;
const person = await given(api.POST('/members', { body: { name: 'Ida Program', email, memberships: [{ group: group.slug }] } }));
await given(api.GET('/members/{id}', { params: { path: { id: person.id } } }));
await given(api.GET('/members', { params: { query: { limit: 5 } } }));
await given(api.GET('/groups/{slug}', { params: { path: { slug: group.slug } } }));
await given(api.PATCH('/documents/{slug}', { ...one, body: { door: { position: 'keyed', groups: [group.slug] } } }));
const decided = await given(api.GET('/documents/{slug}/decision', { params: { path: { slug }, query: { as: `member:${email}` } } }));
expect('the member comes in', decided.allowed);
const out = await given(api.GET('/documents/{slug}/decision', { params: { path: { slug }, query: { as: 'visitor' } } }));
expect('a visitor does not', !out.allowed);
const key = await given(api.POST('/documents/{slug}/keys', { ...one, body: { label: 'For a program' } }));
expect(
	'the key is among them',
	(await given(api.GET('/documents/{slug}/keys', one))).items.some((k) => k.id === key.id)
);
await given(api.DELETE('/keys/{id}', { params: { path: { id: key.id } } }));

// pages
const path = `/by-a-program-${Date.now()}`;
const text = (words: string) => ({ type: 'doc' as const, content: [{ type: 'paragraph' as const, content: [{ type: 'text' as const, text: words }] }] });
await given(api.POST('/pages', { body: { path, title: 'By a program', content: text('Written by a program.') } }));
const page = { params: { path: { path } } };
await given(api.PATCH('/pages/{path}', { ...page, body: { title: 'By a program, changed' } }));
await given(api.POST('/pages/{path}/publish', { ...page, body: {} }));
expect('it is published', (await given(api.GET('/pages/{path}', page))).published);
await given(api.GET('/pages', {}));
await given(api.DELETE('/pages/{path}', page));

// readership
await given(api.GET('/ledger', { params: { query: { order: 'oldest', limit: 20 } } }));
await given(api.GET('/readership/overview', { params: { query: { days: '30' } } }));
await given(api.GET('/readership/documents/{slug}', one));

// a refusal is typed as well
const { error } = await api.GET('/documents/{slug}', { params: { path: { slug: 'no-such-paper' } } });
expect('what is not there is said', error?.code === 'not-found');

await given(api.DELETE('/documents/{slug}', one));
await given(api.DELETE('/members/{id}', { params: { path: { id: person.id } } }));
await given(api.DELETE('/groups/{slug}', { params: { path: { slug: group.slug } } }));
console.log(JSON.stringify({ calls }));
