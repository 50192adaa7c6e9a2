// An example of every operation of the API, from the demo: npm run examples calls each on one of its own, and writes what was asked and what
// was answered to src/lib/server/http/examples.json, which the API's description shows. A test holds them against the contracts.
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { format, resolveConfig } from 'prettier';
import { freePort } from '#server/db/cluster';
import type { Example } from '#server/http/openapi';
import { makePdf } from '../demo/pdf';
import { build } from './build';
import { runIanua } from './run';
import { scratch } from './scratch';

type Json = Record<string, unknown>;
const file = 'src/lib/server/http/examples.json';
/** Where the examples seem to come from. */
const shownOrigin = 'https://library.example.org';
/** As many of a list are shown. */
const most = 2;

build();
const { path: data, drop } = scratch('examples');
const running = await runIanua({ data, port: await freePort(), demo: true, quick: true, log: 'error' });
const signIn = JSON.parse(readFileSync(join(data, 'sign-in.json'), 'utf8')) as { staff: { email: string; password: string }; ports: { source: number } };
const examples: Record<string, Example> = {};
try {
	const base = { origin: running.origin, 'content-type': 'application/json' };
	const signed = await fetch(`${running.origin}/api/auth/sign-in/email`, { method: 'POST', headers: base, body: JSON.stringify(signIn.staff) });
	const cookie = signed.headers
		.getSetCookie()
		.map((c) => c.split(';')[0])
		.join('; ');

	/** Lists are shown by their first lines. */
	const short = (value: unknown): unknown => {
		if (Array.isArray(value)) return value.slice(0, most).map(short);
		if (value === null || typeof value !== 'object') return value;
		return Object.fromEntries(Object.entries(value).map(([name, member]) => [name, short(member)]));
	};

	/** Calls an operation, keeps it as its example, and gives what it answered. `values` stand in the braces. */
	const filled = (path: string, values: readonly string[]) => values.reduce((done, value) => done.replace(/\{\w+\}/, encodeURIComponent(value)), path);
	const call = async (operation: string, value: string | readonly string[] | null, body?: unknown, query = ''): Promise<Json> => {
		const [method, path] = operation.split(' ') as [string, string];
		const form = body instanceof FormData;
		const response = await fetch(`${running.origin}/api/v1${filled(path, [value ?? ''].flat())}${query}`, {
			method: method.toUpperCase(),
			headers: form ? { origin: running.origin, cookie } : { ...base, ...(typeof body === 'string' ? { 'content-type': 'text/csv' } : {}), cookie },
			body: form || typeof body === 'string' ? body : body === undefined ? undefined : JSON.stringify(body)
		});
		const answer = (await response.json()) as Json;
		if (!response.ok) throw new Error(`${operation} ${[value ?? ''].flat().join(' ')}: ${JSON.stringify(answer)}`);
		examples[operation] = { ...(form || body === undefined ? {} : { body }), answer: short(answer) };
		return answer;
	};
	const formOf = (bytes: Uint8Array, name: string, fields: Record<string, string> = {}) => {
		const form = new FormData();
		for (const [field, value] of Object.entries(fields)) form.set(field, value);
		form.set('file', new File([new Uint8Array(bytes)], name));
		return form;
	};
	const checked = async (slug: string) => {
		for (;;) {
			const response = await fetch(`${running.origin}/api/v1/documents/${slug}`, { headers: { cookie } });
			if (((await response.json()) as { condition: { status: string } }).condition.status !== 'checking') return;
			await new Promise((go) => setTimeout(go, 200));
		}
	};
	const bring = async (bytes: Uint8Array, name: string) => {
		const { slug } = await call('post /documents', null, formOf(bytes, name, { folder: 'Notices' }));
		await checked(slug as string);
		return slug as string;
	};
	const notice = (title: string, seed: number) =>
		makePdf({
			title,
			subtitle: 'Ternwell and Oxmere',
			colour: '#0d6675',
			size: 'A4',
			day: '2026-11-24',
			seed,
			sections: [{ heading: 'What', paragraphs: ['The towpath is closed below the bridge.'] }]
		});
	const handbook = 'lock-warden-handbook';
	const items = (answer: Json) => answer.items as { id: string; slug: string; path: string }[];

	// documents
	const [open, shut] = [join(data, 'open.pdf'), join(data, 'shut.pdf')];
	writeFileSync(open, await notice('Tender for dredging', 11));
	execFileSync('qpdf', ['--encrypt', 'windlass', 'windlass', '256', '--', open, shut]);
	const locked = await bring(readFileSync(shut), 'Tender for dredging.pdf');
	await call('post /documents/{slug}/unlock', locked, { password: 'windlass' });
	const lines = items(await call('get /documents', null, undefined, '?condition=look'));
	for (const { slug } of lines) {
		try {
			await call('post /documents/{slug}/clean', slug);
			break;
		} catch {
			// nothing active in it: the next
		}
	}
	const towpath = await bring(await notice('Towpath closed', 1), 'Towpath closed.pdf');
	await call('get /documents', null, undefined, '?folder=Notices&order=-brought');
	await call('post /documents/{slug}/editions', towpath, formOf(await notice('Towpath closed until Friday', 2), 'Towpath closed 2.pdf'));
	await checked(towpath);
	await call('get /documents/{slug}/editions/compare', towpath, undefined, '?before=1&after=2');
	await call('patch /documents/{slug}', towpath, {
		title: 'Towpath closed',
		topics: ['towpath'],
		door: { position: 'open', allow: { save: true, print: true } }
	});
	await call('post /documents/{slug}/cover', towpath, { icon: 'footprints' });
	const changed = await call('post /bulk', null, { documents: [towpath], folder: 'Leaflets', addTopics: ['closures'] });
	await call('post /bulk/undo', null, { undo: changed.undo });
	await call('get /find', null, undefined, '?q=paddle');
	await call('get /folders', null);
	await call('get /topics', null);
	await call('patch /folders', null, { from: 'Notices', to: 'Notices to boaters' });
	await call('patch /topics', null, { from: 'towpath', to: 'towpaths' });
	const filter = await call('post /filters', null, { name: 'Closures', query: 'topic=closures&order=-brought' });
	await call('get /filters', null);
	await call('delete /filters/{id}', filter.id as string);
	await call('get /documents/{slug}', handbook);

	// intake
	const { slug: fetched } = await call('post /from-web', null, {
		url: `http://127.0.0.1:${signIn.ports.source}/conditions.pdf?example`,
		title: 'River conditions',
		watch: true
	});
	await checked(fetched as string);
	await call('patch /documents/{slug}/source', fetched as string, { watch: false });
	await call('post /documents/{slug}/source', fetched as string, { do: 'compare' });
	await call('get /intake', null);
	await call('patch /intake', null, { stop: ['0197a6f0-0000-7000-8000-000000000000'] });
	await call('delete /intake', null);
	const known = (await (await fetch(`${running.origin}/api/v1/documents/${towpath}`, { headers: { cookie } })).json()) as { sha256: string };
	await call('get /intake/known', null, undefined, `?sha256=${known.sha256}`);
	await call('get /icons', null, undefined, '?q=boat');
	const lock = await call('post /pictures', null, formOf(readFileSync('docs/screenshots/catalogue.png'), 'lock.png'));
	await call('post /pictures/turn', null, { picture: lock.picture, degrees: 90 });

	// access
	await call('get /documents/{slug}/decision', handbook, undefined, '?as=visitor&action=read');
	await call('get /documents/{slug}/reach', handbook);
	const key = await call('post /documents/{slug}/keys', handbook, { label: 'The boatyard', until: '2027-03-31', allow: { save: false, print: false } });
	await call('post /documents/{slug}/keys/mail', handbook, { addresses: ['yard@boats.example'], words: 'For the winter works.' });
	await call('post /keys/mail', null, { documents: [handbook, towpath], addresses: ['Kit Mason <kit@boats.example>'], until: '2027-03-31' });
	await call('get /documents/{slug}/keys', handbook);
	await call('get /keys', null);
	const ended = await call('post /keys/bulk', null, { keys: [key.id], until: '2027-06-30' });
	await call('post /keys/bulk/undo', null, ended);
	await call('delete /keys/{id}', key.id as string);
	await call('post /keys/{id}/restore', key.id as string);
	// the shape of this answer is the contract's
	const waiting = items(await call('get /knocks', null)) as unknown as { id: string; answer: string | null }[];
	// the demo has a knock that waits
	await call('post /knocks/{id}/answer', waiting.find((k) => k.answer === null)!.id, { do: 'key', until: '2027-03-31' });

	// people
	const token = await call('post /tokens', null, { label: 'Nightly list', scopes: ['documents:read'], until: '2027-03-31' });
	await call('get /tokens', null);
	await call('delete /tokens/{id}', token.id as string);
	const { slug: rowers } = await call('post /groups', null, { name: 'Rowing club', description: 'Who rows on the summit pound.' });
	await call('get /groups/{slug}', rowers as string);
	await call('patch /groups/{slug}', rowers as string, { description: 'Rows on the summit pound.' });
	await call('get /groups', null);
	const someone = await call('post /members', null, {
		name: 'Maud Feeder',
		email: 'maud.feeder@example.org',
		memberships: [{ group: rowers, from: '2027-01-01', until: '2027-12-31' }]
	});
	await call('put /groups/{slug}/members', rowers as string, { members: [{ email: 'maud.feeder@example.org', until: '2028-12-31' }] }, '?preview');
	const id = someone.id as string;
	await call('get /members/{id}', id);
	await call('patch /members/{id}', id, { memberships: [{ group: rowers, from: '2027-01-01', until: null }] });
	const many = await call('post /members/bulk', null, { members: [id], join: { group: rowers, until: '2028-12-31' } });
	await call('post /members/bulk/undo', null, many);
	await call('post /members/{id}/invite', id);
	await call('get /members', null, undefined, '?group=lock-wardens');
	await call('patch /site', null, {
		fields: [{ name: 'department', words: 'Department', kind: 'choice', choices: ['Works', 'Boats'], listed: true, filtered: true }]
	});
	await call('post /fields', null, 'document,Department\ncruising-guide,Boats\n', '?preview');
	await call('post /members/import', null, 'mail,name,group\nadam.sluice@example.org,Adam Sluice,Rowing club\n', '?preview');

	// placing
	const page = '/towpath';
	const doc = (words: string) => ({
		type: 'doc',
		content: [
			{ type: 'paragraph', content: [{ type: 'text', text: words }] },
			{ type: 'paragraph', content: [{ type: 'placement', attrs: { id: 'towpath-notice', document: towpath, form: 'button', press: 'page' } }] }
		]
	});
	await call('post /pages', null, { path: page, title: 'The towpath', layout: 'article', content: doc('Closed below the bridge.') });
	await call('patch /pages/{path}', page, { content: doc('Closed below the bridge until Friday.') });
	await call('post /pages/{path}/publish', page, {});
	await call('get /pages/{path}', page);
	await call('get /pages/{path}/revisions', page);
	await call('post /pages/{path}/revisions', page, { number: 1 });
	await call('patch /navigation', null, { paths: ['/library', '/water-levels', '/volunteering'] });
	await call('get /pages', null);
	await call('get /shelf', null, undefined, '?q=towpath');
	await call('post /listing', null, { folders: ['Notices'], show: 'list', order: '-changed', beside: false, most: 3 });
	await call('patch /documents/{slug}', towpath, { door: { position: 'keyed', groups: ['lock-wardens'] } });
	await call('get /mismatches', null, undefined, `?page=${encodeURIComponent(page)}`);
	await call('post /mismatches', null, { page, document: towpath, remedy: 'page-door' });
	await call('delete /pages/{path}', page);
	await call('post /pages/{path}/restore', page);

	// readership
	for (const [operation, value] of [
		['get /documents/{slug}/ledger', handbook],
		['get /ledger', null],
		['get /readership/overview', null],
		['get /readership/documents/{slug}', handbook],
		['get /readership/places', null],
		['get /readership/turned-away', null],
		['get /readership/items', null]
	] as const)
		await call(operation, value);
	const [member] = items((await (await fetch(`${running.origin}/api/v1/members?q=wren`, { headers: { cookie } })).json()) as Json);
	// the demo has members
	await call('get /readership/members/{id}', member!.id);
	await call('get /readership/keys/{id}', key.id as string);
	await call('post /documents/{slug}/remind', handbook, { group: 'lock-wardens' });
	await call('patch /readership/subscription', null, { document: handbook, every: 'month', firstOpening: true });
	const program = await call('post /webhooks', null, { url: `http://127.0.0.1:${signIn.ports.source}/told`, events: ['opened'] });
	await call('get /webhooks', null);
	await call('post /webhooks/{id}', program.id as string);
	await call('post /webhooks/{id}/secret', program.id as string);
	await call('post /webhooks/{id}/test', program.id as string);
	const [message] = items(await call('get /webhooks/{id}/messages', program.id as string));
	await call('post /webhooks/{id}/messages/{message}', [program.id as string, String(message?.id)]);
	await call('delete /webhooks/{id}', program.id as string);

	await call('post /former-addresses', null, { items: [{ path: 'https://old.example.org/files/Cruising%20guide.pdf', document: 'cruising-guide' }] });
	const [formerAddress] = items(await call('get /former-addresses', null));
	const oldSite = `http://127.0.0.1:${signIn.ports.source}/sitemap.xml`;
	const places = ['cruising-guide.pdf', 'towpath-notes.pdf'].map((name) => `<url><loc>https://old.example.org/leaflets/${name}</loc></url>`);
	await fetch(oldSite, { method: 'PUT', body: `<urlset>${places.join('')}</urlset>` });
	await call('post /former-addresses/elsewhere', null, { url: oldSite });
	await call('get /former-addresses/missed', null);
	await call('delete /former-addresses/{id}', String(formerAddress?.id));
	const website = await call('post /websites', null, { origin: 'https://club.example.org', groups: ['friends'] });
	const second = await call('post /websites/{id}/keys', website.id as string, { kind: 'secret' });
	await call('get /websites', null);
	await call('patch /websites/{id}', website.id as string, { groups: ['friends', 'lock-wardens'] });
	await call('delete /websites/{id}/keys/{key}', [website.id as string, second.key as string]);
	await call('delete /websites/{id}', website.id as string);

	// the site, and what is taken away
	await call('get /site', null);
	await call('patch /site', null, { name: 'Ternwell & Oxmere Canal Society' });
	await call('delete /members/{id}', id);
	await call('delete /groups/{slug}', rowers as string);
	await call('post /documents/{slug}/exchange', towpath, { with: 'cruising-guide' });
	const put = await call('post /placements', null, { documents: ['cruising-guide'], places: [{ page: '/water-levels', form: 'text', press: 'save' }] });
	await call('patch /placements', null, put.before);
	await call('delete /documents/{slug}', towpath);
	await call('post /documents/{slug}/restore', towpath);
} finally {
	await running.stop();
	drop();
}

const text = JSON.stringify(examples)
	.replaceAll(running.origin, shownOrigin)
	.replaceAll(/(http:\/\/)?127\.0\.0\.1:\d+/g, (_, http: string | undefined) => `${http ? 'https://' : ''}rivers.example.org`);
writeFileSync(file, await format(text, { ...(await resolveConfig(file)), parser: 'json' }));
console.log(`${Object.keys(examples).length} operations in ${file}`);
