// What is sent again, or counted on, until something changes: on the server that changed it at once, on another within a second; never while
// changes are not heard of, and by the clock where hours and days begin and end.
import { execFile, fork, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { promisify } from 'node:util';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { keyCookie } from '#server/access/keys';
import { readableBy } from '#server/access/readable';
import { Cache } from '#server/db/cache';
import { sql } from '#server/db/client';
import { freePort } from '#server/db/cluster';
import { personAt } from '#server/people/who';
import { given } from './given';
import { browserAgent, document, member, origin, pdf, staff, until, visitor, type Client, type DocumentJson } from './help';

const name = `changes-${process.pid}`;
/** Tables by which nothing goes that is kept: readers write them at each step, or they are of no page. A new table stands here only with a reason. */
const silent = [
	...['session', 'verification', 'passkey', 'rate_limit', 'attempt'], // who comes is asked each time
	...['website', 'website_group', 'website_key', 'website_person', 'pass_taken', 'pass_grant'], // whoever comes by a pass gets nothing that is kept
	...['former_address', 'missed_address'], // asked where nothing is kept: no page stands there
	...['audit', 'intake', 'stamp', 'knock', 'idempotency_key'], // seen by staff alone, for whom nothing is kept
	...['door_key'], // pages of whoever holds a key are not kept
	...['ledger', 'reading', 'day_key', 'reader', 'summed', 'progress', 'first_opening', 'report_mail', 'receipt'], // what readers did
	...['sum_figures', 'sum_page', 'sum_reader', 'sum_readers', 'sum_reason', 'sum_refused', 'sum_robot', 'sum_source'],
	...['news', 'news_wish', 'news_told', 'news_feed', 'webhook', 'webhook_delivery'] // on one's own page, which is not kept
];

let boss: Client;
let wren: Client & { email: string };
let second: { origin: string; process: ChildProcess };
let paper: DocumentJson;
let navigation: string[] = [];
const path = `/${name}`;
/** How long something lasts that ends while it is looked at, ms: long enough to be seen before, on a busy machine too. */
const lasts = 8_000;

const placement = (document: string) => ({
	type: 'paragraph',
	content: [{ type: 'placement', attrs: { id: `${name}-one`, document, form: 'cover', press: 'page' } }]
});
const list = () => ({ type: 'documentList', attrs: { id: `${name}-list`, folders: [name], show: 'list', beside: false, filters: false } });

async function publish(title = 'A page that changes', more: object[] = []): Promise<void> {
	const content = { type: 'doc', content: [placement(paper.slug), ...more] };
	await boss.api('PATCH', `/pages/${name}`, { title, content });
	await boss.api('POST', `/pages/${name}/publish`, {});
}

/** A page from one of the two servers, as somebody gets it. */
const ask = async (at: string, who: Client = visitor(), where = path): Promise<string> => {
	const response = await fetch(at + where, { redirect: 'manual', headers: who.headers });
	return `${response.status} ${await response.text()}`;
};

beforeAll(async () => {
	boss = await staff();
	navigation = (await sql()<{ path: string }[]>`select path from page where navigation is not null and set_aside_at is null order by navigation`).map(
		(row) => row.path
	);
	wren = await member({ group: 'Changing wardens' });
	paper = await document({ position: 'open' });
	await boss.api('POST', '/pages', {
		path,
		title: 'A page that changes',
		layout: 'article',
		content: { type: 'doc', content: [] },
		door: { position: 'open' }
	});
	await publish();
	const port = await freePort();
	const environment = { ...process.env, ...given.environment, IANUA_PORT: String(port), IANUA_JOBS: 'apart' };
	const child = fork('build/web.js', { execArgv: [], env: environment, stdio: ['ignore', 'inherit', 'inherit', 'ipc'] });
	await once(child, 'message');
	second = { origin: `http://127.0.0.1:${port}`, process: child };
});
afterAll(async () => {
	// others find the site as it was
	await boss.api('PATCH', '/site', { name: 'Test society', contact: null, notice: null });
	await boss.api('PATCH', '/navigation', { paths: navigation });
	second.process.kill('SIGTERM');
	await once(second.process, 'exit');
});

/** Does something to the page behind everybody's back: no server is told. */
async function unheard(work: (tx: ReturnType<typeof sql>) => Promise<unknown>): Promise<void> {
	await sql().begin(async (tx) => {
		await tx`set local session_replication_role = replica`;
		await work(tx as unknown as ReturnType<typeof sql>); // the same calls, within the transaction
	});
}
const titled = (title: string) => (tx: ReturnType<typeof sql>) =>
	tx`update revision set title = ${title} where id = (select published_id from page where path = ${path})`;

describe('every table', () => {
	it('tells of its changes, or is known not to', async () => {
		const rows = await sql()<{ name: string; told: boolean }[]>`
			select c.relname as name, exists (select from pg_trigger t where t.tgrelid = c.oid and t.tgname = 'told' and t.tgenabled = 'O') as told
			from pg_class c where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p') and not c.relispartition`;
		expect(rows.filter((row) => row.told).map((row) => row.name).sort()).toContain('door'); // prettier-ignore
		expect(rows.filter((row) => !row.told).map((row) => row.name).sort()).toEqual([...silent].sort()); // prettier-ignore
	});
	it('is silent while somebody reads: what is kept stands', async () => {
		let heard = 0;
		const { unlisten } = await sql().listen('ianua_changed', () => heard++);
		const reader = visitor(`reader-${name}`);
		expect((await reader.get(`/d/${paper.slug}/file`)).status).toBe(200);
		expect((await reader.get(path)).status).toBe(200);
		expect((await reader.get(`/d/${paper.slug}/read`)).status).toBe(200);
		await sql()`select 1`;
		expect(heard).toBe(0);
		await boss.api('PATCH', `/documents/${paper.slug}`, { description: 'Heard of' });
		await until(async () => heard > 0);
		await unlisten();
	});
});

describe('a page that is kept', () => {
	const servers = () => [origin, second.origin] as const;

	it('is sent as it was until something changes, whatever else is true meanwhile', async () => {
		await publish('As it was');
		for (const who of [visitor(), wren]) for (const at of servers()) expect(await ask(at, who)).toContain('As it was');
		await unheard(titled('Behind their backs'));
		for (const who of [visitor(), wren])
			for (const at of servers()) expect([at, await ask(at, who)]).toEqual([at, expect.not.stringContaining('Behind their backs')]);
		// staff get what is there, and so do those who hold a key, and whoever asks for something
		for (const at of servers()) {
			expect(await ask(at, boss)).toContain('Behind their backs');
			expect(await ask(at, client({ cookie: `${keyCookie}=${'k'.repeat(24)}` }))).toContain('Behind their backs');
			expect(await ask(at, visitor(), `${path}?q=`)).toContain('Behind their backs');
		}
		await boss.api('PATCH', '/site', { contact: 'desk@example.org' });
		expect(await ask(origin)).toContain('Behind their backs');
		await until(async () => (await ask(second.origin)).includes('Behind their backs'));
	});

	it('answers “as before” for its mark, in each coding, and to HEAD', async () => {
		await publish('Marked');
		const coded = async (coding: string) => {
			const response = await fetch(origin + path, { headers: { 'accept-encoding': coding, 'user-agent': browserAgent } });
			return [response.headers.get('content-encoding'), await response.text(), response.headers.get('etag')] as const;
		};
		const [, plain] = await coded('identity');
		expect(plain).toContain('Marked');
		for (const [coding, used] of [
			['br', 'br'],
			['gzip, deflate', 'gzip'],
			['identity', null],
			['br;q=0, gzip;q=0.5', 'gzip'],
			['zstd', null]
		] as const)
			// prettier-ignore
			expect([coding, ...(await coded(coding)).slice(0, 2)]).toEqual([coding, used, plain]);
		const etag = (await coded('br'))[2]!; // a page has one
		const again = await fetch(origin + path, { headers: { 'if-none-match': etag, 'user-agent': browserAgent } });
		expect([again.status, await again.text()]).toEqual([304, '']);
		const head = await fetch(origin + path, { method: 'HEAD', headers: { 'user-agent': browserAgent, 'accept-encoding': 'identity' } });
		expect([head.status, await head.text(), head.headers.get('content-length')]).toEqual([200, '', String(Buffer.byteLength(plain))]);
		const [first, other] = [again.headers.get('x-request-id'), head.headers.get('x-request-id')];
		expect(first && other && first !== other).toBe(true);
	});

	it('is another for another language, another theme, another person, and for a browser that asks for little', async () => {
		await publish('For each their own');
		const german = client({ 'accept-language': 'de' });
		const dark = client({ cookie: 'ianua_theme=dark' });
		for (let round = 0; round < 2; round++) {
			expect(await ask(origin, german)).toContain('lang="de"');
			expect(await ask(origin, visitor())).toContain('lang="en"');
			expect(await ask(origin, dark)).toMatch(/data-theme="dark"|class="[^"]*dark/);
			expect(await ask(origin, wren)).toContain('/me');
			expect(await ask(origin, visitor())).not.toContain('Member ');
			expect(await ask(origin, client({ 'sec-gpc': '1' }), '/privacy')).not.toBe(await ask(origin, visitor(), '/privacy'));
		}
	});

	const change: readonly (readonly [string, () => Promise<unknown>, 'member' | 'visitor'])[] = [
		['a new title is published', () => publish('Another title'), 'visitor'],
		['the site is named anew', () => boss.api('PATCH', '/site', { name: `Site ${randomUUID()}` }), 'visitor'],
		['a notice is put up', () => boss.api('PATCH', '/site', { notice: { words: 'The lock is closed.' } }), 'visitor'],
		['a notice is taken down', () => boss.api('PATCH', '/site', { notice: null }), 'visitor'],
		['a document is named anew', () => boss.api('PATCH', `/documents/${paper.slug}`, { title: `Paper named anew ${randomUUID()}` }), 'visitor'],
		['its door is shut', () => boss.api('PATCH', `/documents/${paper.slug}`, { door: { position: 'shut' } }), 'visitor'],
		['its door is opened', () => boss.api('PATCH', `/documents/${paper.slug}`, { door: { position: 'open' } }), 'visitor'],
		[
			'its door is keyed to a group',
			() => boss.api('PATCH', `/documents/${paper.slug}`, { door: { position: 'keyed', groups: ['changing-wardens'] } }),
			'visitor'
		],
		['the group is let in no more', () => boss.api('PATCH', `/documents/${paper.slug}`, { door: { groups: [] } }), 'member'],
		['a member is let in by name', () => boss.api('PATCH', `/documents/${paper.slug}`, { door: { people: [wren.email] } }), 'member'],
		['the member is let in no more', () => boss.api('PATCH', `/documents/${paper.slug}`, { door: { people: [] } }), 'member'],
		['the member’s group is let in', () => boss.api('PATCH', `/documents/${paper.slug}`, { door: { groups: ['changing-wardens'] } }), 'member'],
		['the member leaves the group', async () => boss.api('PATCH', `/members/${await idOf(wren)}`, { memberships: [] }), 'member'],
		['the document is open again', () => boss.api('PATCH', `/documents/${paper.slug}`, { door: { position: 'open' } }), 'visitor'],
		['it is set aside', () => boss.api('DELETE', `/documents/${paper.slug}`), 'visitor'],
		['it comes back', () => boss.api('POST', `/documents/${paper.slug}/restore`, {}), 'visitor'],
		['the list of a folder stands on the page', () => publish('With a list', [list()]), 'visitor'],
		['a document comes into the folder', () => boss.api('PATCH', `/documents/${paper.slug}`, { folder: name }), 'visitor'],
		['it has a new edition', newEdition, 'visitor'],
		['it leaves the folder', () => boss.api('PATCH', `/documents/${paper.slug}`, { folder: '' }), 'visitor'],
		['the page leaves the navigation', () => boss.api('PATCH', '/navigation', { paths: [] }), 'visitor'],
		['it stands there again', () => boss.api('PATCH', '/navigation', { paths: [path] }), 'visitor'],
		['the page is shut', () => boss.api('PATCH', `/pages/${name}`, { door: { position: 'shut' } }), 'visitor'],
		['the page is for members', () => boss.api('PATCH', `/pages/${name}`, { door: { position: 'keyed', allMembers: true } }), 'visitor'],
		['the page is open', () => boss.api('PATCH', `/pages/${name}`, { door: { position: 'open' } }), 'visitor'],
		['the page is set aside', () => boss.api('DELETE', `/pages/${name}`), 'visitor'],
		['the page comes back', () => boss.api('POST', `/pages/${name}/restore`, {}), 'visitor']
	];
	it('changes at once where it was changed, and within a second elsewhere, at everything that can change it', async () => {
		await publish();
		for (const [what, work, whose] of change) {
			const who = whose === 'member' ? wren : visitor();
			const before: string[] = [];
			for (const at of servers()) {
				await ask(at, who);
				before.push(await ask(at, who));
			}
			await work();
			const [mine, theirs] = before;
			if ((await ask(origin, who)) === mine) throw new Error(`${what}: not seen where it was changed`);
			await until(async () => (await ask(second.origin, who)) !== theirs).catch(() => {
				throw new Error(`${what}: not seen on the other server`);
			});
		}
	});

	it('of the door of a page or a document nobody elsewhere meets the one before, not for a moment', async () => {
		await publish('Shut elsewhere');
		for (const [thing, address] of [
			[`/pages/${name}`, path],
			[`/documents/${paper.slug}`, `/d/${paper.slug}/file`]
		] as const) {
			const statusOf = async (at: string) => (await fetch(at + address, { headers: { 'user-agent': browserAgent } })).status;
			for (let round = 0; round < 12; round++) {
				const [position, status] = round % 2 ? (['open', 200] as const) : (['shut', 404] as const);
				for (const at of servers()) await statusOf(at);
				await boss.api('PATCH', thing, { door: { position } });
				expect([address, round, await statusOf(second.origin), await statusOf(origin)]).toEqual([address, round, status, status]);
			}
		}
	});

	it('of what goes with a document, its page on either server names what is open and not what was shut a moment ago', async () => {
		const [shown, beside] = [await document({ position: 'open' }), await document({ position: 'open' })];
		for (const { slug } of [shown, beside]) await boss.api('PATCH', `/documents/${slug}`, { folder: `${name} beside` });
		const names = async (at: string) => (await ask(at, visitor(), `/d/${shown.slug}`)).includes(`/d/${beside.slug}`);
		for (let round = 0; round < 6; round++) {
			const open = round % 2 === 0;
			await boss.api('PATCH', `/documents/${beside.slug}`, { door: { position: open ? 'open' : 'shut' } });
			expect([round, await names(second.origin), await names(origin)]).toEqual([round, open, open]);
		}
	});

	it('ends by the clock where hours end, though nothing changes', async () => {
		await publish('Until a moment');
		await boss.api('PATCH', `/pages/${name}`, { door: { until: new Date(Date.now() + lasts).toISOString() } });
		for (const at of servers()) expect(await ask(at)).toMatch(/^200 /);
		for (const at of servers()) expect(await ask(at)).toMatch(/^200 /);
		for (const at of servers()) await until(async () => !(await ask(at)).startsWith('200'));
		await boss.api('PATCH', `/pages/${name}`, { door: { until: null } });
	});

	it('ends where an entry of a pocket page comes on show or goes', async () => {
		const soonOver = new Date(Date.now() + lasts).toISOString();
		const content = { entries: [{ url: 'https://weather.example.org/', words: 'For a moment', until: soonOver }, { url: 'https://tides.example.org/', words: 'Then this one', from: soonOver }] }; // prettier-ignore
		await boss.api('POST', '/pages', { path: `/${name}-pocket`, title: 'Pocket', layout: 'pocket', content, door: { position: 'open' }, inNavigation: false });
		await boss.api('POST', `/pages/${name}-pocket/publish`, {});
		const pocket = (at: string) => ask(at, visitor(), `/${name}-pocket`);
		for (const at of [...servers(), ...servers()]) expect([at, await pocket(at)]).toEqual([at, expect.stringMatching(/For a moment(?![^]*Then this one)/)]);
		for (const at of servers()) await until(async () => !(await pocket(at)).includes('For a moment'));
		for (const at of servers()) expect([at, await pocket(at)]).toEqual([at, expect.stringMatching(/^(?![^]*For a moment)[^]*Then this one/)]);
	});

	it('is made anew for everybody after the line was cut: what changed meanwhile was not heard', async () => {
		await publish('Before the cut');
		for (const at of servers()) expect(await ask(at)).toContain('Before the cut');
		await unheard(titled('While nobody heard'));
		const cut = await sql()`select pg_terminate_backend(pid) from pg_stat_activity where application_name = 'ianua changes'`;
		expect(cut.length).toBeGreaterThanOrEqual(2);
		for (const at of servers()) await until(async () => (await ask(at)).includes('While nobody heard'));
		// and it is kept again, once the line stands: what changes behind everybody's back is not seen
		let turn = 0;
		await until(async () => {
			for (const at of servers()) await ask(at);
			await unheard(titled(`And once more ${++turn}`));
			const seen = await Promise.all(servers().map((at) => ask(at)));
			return seen.every((page) => !page.includes(`And once more ${turn}`));
		});
		await publish('Heard again');
		expect(await ask(origin)).toContain('Heard again');
		await until(async () => (await ask(second.origin)).includes('Heard again'));
	});
});

describe('what is remembered in a process', () => {
	it('is made once for those who ask at once, again after a change, and again when its time is over', async () => {
		const cache = new Cache<number>({ most: 10, within: 0 });
		let made = 0;
		const get = (now?: number) => cache.get('key', () => Promise.resolve({ value: ++made, until: 1000 }), now);
		expect(await Promise.all([get(0), get(0), get(999)])).toEqual([1, 1, 1]);
		expect(await get(1000)).toBe(2);
		expect(await get(0)).toBe(2);
		await boss.api('PATCH', '/site', { contact: 'again@example.org' });
		expect(await get(0)).toBe(3);
		await expect(cache.get('other', () => Promise.reject(new Error('not made')))).rejects.toThrow('not made');
		expect(await cache.get('other', () => Promise.resolve({ value: 7, until: Infinity }))).toBe(7);
	});
	it('forgets what was used least lately, by weight', async () => {
		const cache = new Cache<string>({ most: 10, weigh: (text) => text.length });
		const get = (key: string, value: string) => cache.get(key, () => Promise.resolve({ value, until: Infinity }));
		await get('a', 'aaaa');
		await get('b', 'bbbb');
		expect(await get('a', 'other')).toBe('aaaa');
		await get('c', 'cccc');
		expect([await cache.peek('a'), await cache.peek('b'), await cache.peek('c')]).toEqual(['aaaa', null, 'cccc']);
	});
	it('does not take what was begun before a change', async () => {
		const { changed, changesSoFar } = await import('#server/db/changes');
		const cache = new Cache<string>({ most: 10 });
		const begun = changesSoFar();
		changed();
		cache.put('a', 'old', { until: Infinity, begun });
		expect(await cache.peek('a')).toBeNull();
		cache.put('a', 'new', { until: Infinity, begun: changesSoFar() });
		expect(await cache.peek('a')).toBe('new');
	});
	it('is not used at all where no line can be had', async () => {
		const source = `
			import { Cache } from '#server/db/cache';
			const cache = new Cache({ most: 10 });
			let made = 0;
			const get = () => cache.get('key', () => Promise.resolve({ value: ++made, until: Infinity }));
			console.log(JSON.stringify([await get(), await get(), await get(), await cache.peek('key')]));
			process.exit(0);`;
		const environment = { ...process.env, ...given.environment, IANUA_DATABASE_URL: `postgres://postgres@127.0.0.1:${await freePort()}/none` };
		const { stdout } = await promisify(execFile)(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', source], { env: environment });
		expect(JSON.parse(stdout)).toEqual([1, 2, 3, null]);
	});
	it('of what somebody may read is true at once, also of what was changed past every server', async () => {
		const { who, person } = (await personAt(wren.email))!; // the member is there
		const reads = async () => (await sql()`select id from (${(await readableBy({ who, person })).ids}) as r (id)`.values()).map(([id]) => id as string);
		expect(await reads()).toContain(paper.id);
		await sql()`update door set position = 'shut' where id = (select door_id from document where id = ${paper.id})`;
		expect(await reads()).not.toContain(paper.id);
		await sql()`update door set position = 'open' where id = (select door_id from document where id = ${paper.id})`;
		expect(await reads()).toContain(paper.id);
	});
});

function client(headers: Record<string, string>): Client {
	const base = visitor();
	return { ...base, headers: { ...base.headers, ...headers } };
}

const idOf = async ({ email }: { email: string }): Promise<string> => (await personAt(email))!.person!.id; // the member is there

async function newEdition(): Promise<void> {
	const form = new FormData();
	form.append('file', new Blob([new Uint8Array(await pdf(`Another edition ${randomUUID()}`, 5))]), 'edition.pdf');
	const response = await boss.send('POST', `/api/v1/documents/${paper.slug}/editions`, form);
	if (response.status !== 201) throw new Error(await response.text());
	await until(async () => (await boss.api<DocumentJson>('GET', `/documents/${paper.slug}`)).pages === 5);
}
