// A site written out in open formats and taken in again by the command line: out, in and out again is the same; beside what is there nothing is lost;
// what is damaged is told and leaves nothing. And a folder of PDFs from elsewhere, with a table about them.
import { execFile, execFileSync } from 'node:child_process';
import { chmodSync, cpSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ItemReportJson } from '#core/readership/items';
import { exportLines, type ExportLine, type ExportPart } from '#core/upkeep/portable';
import { reportTables } from '#server/readership/contract';
import { readExport } from '#server/upkeep/import';
import { compile } from '#server/validate';
import type { Running } from '../../scripts/run';
import { scratch } from '../../scripts/scratch';
import { browserAgent, pdf } from './help';
import { begin, signOwnerIn, startOwn } from './own';
import { recompute } from './recompute';

const { path: at, drop } = scratch('export');
const environment = Object.fromEntries(Object.entries(process.env).filter(([name]) => !name.startsWith('IANUA_')));
function ianua(data: string, ...args: string[]): Promise<{ code: number; out: string; err: string }> {
	return new Promise((done) =>
		execFile(process.execPath, ['build/admin.js', ...args, '--data', join(at, data)], { env: environment }, (error, out, err) =>
			done({ code: error ? Number(error.code ?? -1) : 0, out, err })
		)
	);
}
interface Imported {
	fresh: Record<ExportPart, number>;
	here: number;
	settings: boolean;
	notes: string[];
	done: boolean;
}
const taken = async (data: string, folder: string, ...more: string[]): Promise<Imported> => {
	const { code, out, err } = await ianua(data, 'import', folder, '--json', ...more);
	if (code) throw new Error(err);
	return JSON.parse(out) as Imported;
};
const lines = <P extends ExportPart>(folder: string, part: P): ExportLine<P>[] =>
	readFileSync(join(folder, `${part}.jsonl`), 'utf8')
		.split('\n')
		.filter(Boolean)
		.map((line) => JSON.parse(line) as ExportLine<P>);

let one: Running;
let two: Running;
let boss: { cookie: string };
const [out, again] = [join(at, 'out'), join(at, 'again')];

type Json = Record<string, unknown>;
const call = async <T = Json>(running: Running, who: { cookie: string }, method: string, path: string, body?: unknown): Promise<T> => {
	const response = await fetch(`${running.origin}/api/v1${path}`, {
		method,
		headers: { ...who, origin: running.origin, 'content-type': 'application/json' },
		body: body === undefined ? undefined : JSON.stringify(body)
	});
	const answer = (await response.json()) as T;
	if (!response.ok) throw new Error(`${method} ${path}: ${JSON.stringify(answer)}`);
	return answer;
};
async function bring(running: Running, who: { cookie: string }, bytes: Buffer, name: string, to = '/documents'): Promise<string> {
	const form = new FormData();
	form.append('file', new Blob([new Uint8Array(bytes)]), name);
	const made = await fetch(`${running.origin}/api/v1${to}`, { method: 'POST', headers: { ...who, origin: running.origin }, body: form });
	expect(made.status).toBe(201);
	return ((await made.json()) as { slug: string }).slug;
}

/** A site with one of everything that an export has. */
async function fill(): Promise<void> {
	const api = <T = Json>(method: string, path: string, body?: unknown) => call<T>(one, boss, method, path, body);
	await api('PATCH', '/site', {
		name: 'Lock society',
		fields: [{ name: 'department', words: 'Department', kind: 'text', listed: true, filtered: false }],
		framers: ['www.example.org']
	});
	const { slug: wardens } = await api<{ slug: string }>('POST', '/groups', { name: 'Wardens', description: 'Who mind the locks' });
	await api('POST', '/members', {
		name: 'Ann Heron',
		email: 'ann@example.org',
		password: 'anns-own-password',
		memberships: [{ group: wardens, from: '2026-01-01', until: '2099-12-31' }]
	});
	const handbook = await bring(one, boss, await pdf('Handbook', 3), 'handbook (v1).pdf');
	await bring(one, boss, await pdf('Handbook, second', 4), 'handbook (v2).pdf', `/documents/${handbook}/editions`);
	await until(async () =>
		(await api<{ editions: { number: number; inForce: boolean }[] }>('GET', `/documents/${handbook}`)).editions.some((e) => e.number === 2 && e.inForce)
	);
	const notice = await bring(one, boss, await pdf('Notice', 2), 'notice.pdf');
	const aside = await bring(one, boss, await pdf('Set aside', 1), 'aside.pdf');
	await api('PATCH', '/pages/%2F', {}).catch(() =>
		api('POST', '/pages', { path: '/', title: 'Front', content: { type: 'doc', content: [{ type: 'paragraph' }] } })
	);
	const placed = { type: 'placement', attrs: { document: handbook, form: 'card', press: 'page' } };
	await api('POST', '/pages', {
		path: '/volunteers',
		title: 'Volunteers',
		door: { position: 'keyed', groups: [wardens] },
		content: { type: 'doc', content: [placed] }
	});
	await api('POST', '/pages/volunteers/publish', {});
	await api('PATCH', '/pages/volunteers', { title: 'Volunteers, being written' });
	await api('PATCH', `/documents/${handbook}`, {
		slug: 'warden-handbook',
		title: 'Warden’s handbook, “new”',
		description: 'Two lines\nof words',
		folder: 'Handbooks',
		topics: ['locks', 'wardens'],
		fields: { department: 'Works' },
		review: { on: '2027-01-31', by: 'o@example.org' },
		receipt: 'each-edition',
		coverPage: 2,
		door: { follows: '/volunteers', allow: { print: false } }
	});
	await api('PATCH', `/documents/${notice}`, { door: { position: 'open', until: '2099-03-31' } });
	await api('DELETE', `/documents/${aside}`);
	await api('POST', `/former-addresses`, {
		items: [
			{ path: '/old/notice.pdf', document: notice },
			{ path: '/older/**/*.pdf', document: '*' }
		]
	});
	const key = await api<{ url: string }>('POST', '/documents/warden-handbook/keys', { label: 'Printer', openings: 5, password: 'opens-it' });
	keyUrl = new URL(key.url).pathname;
	const reader = { 'user-agent': browserAgent };
	for (const path of [`/d/${notice}/file`, `/d/${notice}/file?save`, '/d/warden-handbook/file'])
		await (await fetch(one.origin + path, { headers: reader })).arrayBuffer();
	const ann = await fetch(`${one.origin}/api/auth/sign-in/email`, {
		method: 'POST',
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify({ email: 'ann@example.org', password: 'anns-own-password' })
	});
	memberCookie = ann.headers.getSetCookie().map((c) => c.split(';')[0]).join('; '); // prettier-ignore
	expect((await fetch(`${one.origin}/d/warden-handbook/file`, { headers: { ...reader, cookie: memberCookie } })).status).toBe(200);
	const receipt = new FormData();
	receipt.append('edition', '2');
	const sent = { ...reader, cookie: memberCookie, origin: one.origin, accept: 'text/html' };
	expect((await fetch(`${one.origin}/d/warden-handbook?/receipt`, { method: 'POST', headers: sent, body: receipt, redirect: 'manual' })).status).toBe(303);
	await (await fetch(`${one.origin}/old/notice.pdf`, { headers: reader })).arrayBuffer();
}
let keyUrl = '';
let memberCookie = '';
async function until(good: () => Promise<boolean>): Promise<void> {
	for (let n = 0; n < 600; n++) {
		if (await good()) return;
		await new Promise((go) => setTimeout(go, 100));
	}
	throw new Error('it did not come to be');
}

beforeAll(async () => {
	one = await startOwn({ data: join(at, 'one') });
	boss = await begin(one);
	await fill();
	const made = await ianua('one', 'export', out);
	expect([made.code, made.err]).toEqual([0, '']);
});
afterAll(async () => {
	await one?.stop();
	await two?.stop();
	drop();
});

describe('an export', () => {
	it('has a line for each thing as its schema says, and the files to the bit', () => {
		expect(readdirSync(out).sort()).toEqual(
			['README.txt', 'documents.csv', 'documents.jsonl', 'export.json', 'files', 'groups.jsonl', 'keys.csv', 'keys.jsonl', 'ledger.csv', 'ledger.jsonl', 'pages.jsonl', 'people.csv', 'people.jsonl', 'pictures.jsonl', 'schema.json', 'settings.json'].sort() // prettier-ignore
		);
		for (const part of Object.keys(exportLines) as ExportPart[]) {
			const check = compile(exportLines[part]);
			for (const line of lines(out, part)) expect([part, check(line)]).toMatchObject([part, { ok: true }]);
		}
		const { counts } = JSON.parse(readFileSync(join(out, 'export.json'), 'utf8')) as { counts: Record<ExportPart, number> };
		for (const [part, n] of Object.entries(counts)) expect([part, lines(out, part as ExportPart).length]).toEqual([part, n]);
		expect(counts).toMatchObject({ groups: 1, people: 2, documents: 3, keys: 1 });
		for (const { editions } of lines(out, 'documents'))
			for (const { file, sha256, bytes } of editions) {
				const kept = readFileSync(join(out, file));
				expect([kept.length, createHash('sha256').update(kept).digest('hex')]).toEqual([bytes, sha256]);
			}
		expect(readdirSync(join(out, 'files')).sort()).toEqual(['aside.pdf', 'notice.pdf', 'warden-handbook.1.pdf', 'warden-handbook.pdf']);
		const ledger = lines(out, 'ledger');
		expect(ledger.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['opened', 'saved', 'turned-away']));
		// the visitor is one number, the member another
		expect(new Set(ledger.filter((e) => e.who === 'visitor').map((e) => e.reader)).size).toBe(1);
		expect(ledger.find((e) => e.person === 'ann@example.org' && e.kind === 'opened')).toMatchObject({ document: 'warden-handbook', who: 'member' });
		const handbook = lines(out, 'documents').find((d) => d.slug === 'warden-handbook');
		expect(handbook).toMatchObject({ receipt: 'each-edition', receipts: [{ person: 'ann@example.org', edition: 2 }] });
	});
	it('its tables are read by any program, and no cell is a formula', () => {
		const table = Papa.parse<Record<string, string>>(readFileSync(join(out, 'documents.csv'), 'utf8').replace(/^\ufeff/, ''), {
			header: true,
			skipEmptyLines: true
		});
		expect(table.errors).toEqual([]);
		expect(table.data.find((row) => row.document === 'warden-handbook')).toMatchObject({
			title: 'Warden’s handbook, “new”',
			description: 'Two lines\nof words',
			topics: 'locks; wardens',
			file: 'files/warden-handbook.pdf',
			field_department: 'Works'
		});
		expect(Papa.parse(readFileSync(join(out, 'ledger.csv'), 'utf8'), { skipEmptyLines: true }).data.length).toBe(lines(out, 'ledger').length + 1);
	});
	it('a folder with something in it is refused', async () => {
		const { code, err } = await ianua('one', 'export', out);
		expect([code, err]).toEqual([1, expect.stringContaining('is not empty')]);
	});
});

describe('through the desk', () => {
	it('an owner takes the same in one zip, nobody else, and the trail says so', async () => {
		for (const headers of [{ cookie: '' }, { cookie: memberCookie }]) {
			const refused = await fetch(`${one.origin}/desk/settings/everything.zip`, { headers: { ...headers, accept: 'application/json' }, redirect: 'manual' });
			expect([401, 403]).toContain(refused.status);
		}
		const sent = await fetch(`${one.origin}/desk/settings/everything.zip`, { headers: boss });
		expect([sent.status, sent.headers.get('content-type')]).toEqual([200, 'application/zip']);
		const zip = unzipSync(new Uint8Array(await sent.arrayBuffer()));
		for (const name of ['documents.jsonl', 'pages.jsonl', 'keys.csv', 'files/warden-handbook.1.pdf'])
			expect(Buffer.from(zip[name]!).equals(readFileSync(join(out, name)))).toBe(true);
		const trail = await (await fetch(`${one.origin}/desk/upkeep/trail.csv`, { headers: boss })).text();
		expect(trail).toContain('exported');
	});
});

describe('taken in again', () => {
	it('by an empty site: told first, then the same when it is written out again, and it is as it was for readers', async () => {
		two = await startOwn({ data: join(at, 'two') });
		await begin(two);
		const look = await taken('two', out, '--look');
		expect(look).toMatchObject({ fresh: { groups: 1, people: 1, documents: 3, keys: 1 }, here: 0, settings: true, done: false });
		expect((await call<{ items: unknown[] }>(two, await signOwnerIn(two), 'GET', '/documents')).items).toEqual([]);
		expect(await taken('two', out)).toMatchObject({ fresh: look.fresh, done: true });
		const made = await ianua('two', 'export', again);
		expect([made.code, made.err]).toEqual([0, '']);
		// whoever owns the site was here before
		const members = (folder: string) => lines(folder, 'people').filter(({ role }) => role === 'member');
		expect(members(again)).toEqual(members(out));
		for (const part of ['groups', 'pictures', 'documents', 'pages', 'keys', 'ledger'] as const)
			expect([part, lines(again, part)]).toEqual([part, lines(out, part)]);
		for (const name of ['settings.json', 'documents.csv', 'ledger.csv', 'keys.csv'])
			expect(readFileSync(join(again, name), 'utf8')).toBe(readFileSync(join(out, name), 'utf8'));
		for (const file of readdirSync(join(out, 'files')))
			expect(readFileSync(join(again, 'files', file)).equals(readFileSync(join(out, 'files', file)))).toBe(true);

		// the checks are done by the server that runs
		const there = await signOwnerIn(two);
		await until(async () => (await call<{ condition: { status: string } }>(two, there, 'GET', '/documents/warden-handbook')).condition.status === 'sound');
		// open to whom it was open, shut to whom it was shut, and the key that was handed out opens still
		const agent = { 'user-agent': browserAgent };
		expect((await fetch(`${two.origin}/d/notice/file`, { headers: agent })).status).toBe(200);
		expect((await fetch(`${two.origin}/d/warden-handbook/file`, { headers: agent })).status).toBe(401);
		expect((await fetch(`${two.origin}/old/notice.pdf`, { headers: agent, redirect: 'manual' })).status).toBe(301);
		// and a pattern that leads to the document of the name
		expect((await fetch(`${two.origin}/older/2019/notice.pdf`, { headers: agent, redirect: 'manual' })).headers.get('location')).toBe('/d/notice');
		expect((await fetch(`${two.origin}${keyUrl}`, { headers: agent, redirect: 'manual' })).status).toBeLessThan(400);
		// and the figures are the same
		const figures = async (running: Running, who: { cookie: string }) =>
			(await call<{ figures: Json }>(running, who, 'GET', '/readership/documents/notice')).figures;
		expect(await figures(two, there)).toMatchObject({ openings: 2, saves: 1 });
	});
	it('a second time changes nothing', async () => {
		expect(await taken('two', out)).toMatchObject({ fresh: { groups: 0, people: 0, documents: 0, pages: 0, keys: 0, ledger: 0 }, here: 3, settings: false });
	});
	it('beside another document at an address, it gets the next one, and pages show it there', async () => {
		const three = await startOwn({ data: join(at, 'three') });
		try {
			const own = await begin(three);
			const mine = await bring(three, own, await pdf('Another of that name', 1), 'x.pdf');
			await call(three, own, 'PATCH', `/documents/${mine}`, { slug: 'warden-handbook' });
			const { notes, fresh, settings } = await taken('three', out);
			expect([fresh.documents, settings]).toEqual([3, false]);
			expect(notes).toEqual(
				expect.arrayContaining([
					expect.stringContaining('gets the address warden-handbook-2'),
					'The settings of this site stay as they are.',
					'Fields that this site does not have stay out: department.'
				])
			);
			const page = await call<{ content: unknown }>(three, own, 'GET', '/pages/volunteers');
			expect(JSON.stringify(page.content)).toContain('"document":"warden-handbook-2"');
			expect((await call<{ title: string }>(three, own, 'GET', '/documents/warden-handbook')).title).toBe('X');
		} finally {
			await three.stop();
		}
	});
	it('what is damaged or missing is told by its line or file, and nothing is taken in', async () => {
		const four = await startOwn({ data: join(at, 'four') });
		try {
			const own = await begin(four);
			let n = 0;
			const spoilt = (how: (folder: string) => void) => {
				const folder = join(at, `spoilt-${++n}`);
				cpSync(out, folder, { recursive: true });
				how(folder);
				return folder;
			};
			const edit = (name: string, from: RegExp, to: string) =>
				spoilt((folder) => {
					const path = join(folder, name);
					const text = readFileSync(path, 'utf8');
					expect(text).toMatch(from);
					writeFileSync(path, text.replace(from, to));
				});
			// what can be told by reading it
			const unread = async (folder: string) =>
				readExport(folder).then(
					() => '',
					(error: unknown) => (error as Error).message
				);
			expect(await unread(edit('export.json', /"format": 1/, '"format": 99'))).toContain('of a newer kind');
			expect(await unread(edit('documents.jsonl', /"position" ?: ?"\w+"/, '"position": "ajarish"'))).toMatch(/documents\.jsonl, line \d/);
			expect(await unread(edit('groups.jsonl', /^\{/, '{{'))).toMatch(/groups\.jsonl, line 1/);
			expect(await unread(edit('documents.jsonl', /files\/notice\.pdf/, 'files/../../etc/passwd'))).toMatch(/documents\.jsonl, line \d/);
			expect(await unread(edit('keys.jsonl', /"hash" ?: ?"[^"]+"/, '"hash": null'))).toMatch(/keys\.jsonl, line 1/);
			// a file, and after files and rows a line of the ledger: the whole of it is undone
			const broken = async (folder: string) => {
				const { code, err } = await ianua('four', 'import', folder);
				expect(code).toBe(1);
				expect((await call<{ items: unknown[] }>(four, own, 'GET', '/documents')).items).toEqual([]);
				return err;
			};
			expect(await broken(spoilt((folder) => writeFileSync(join(folder, 'files', 'notice.pdf'), 'not what it was')))).toContain('is damaged');
			expect(await broken(edit('ledger.jsonl', /"kind" ?: ?"opened"/, '"kind": "eaten"'))).not.toBe('');
			expect((await ianua('four', 'import', join(at, 'nowhere'))).err).toContain('There is no folder');
		} finally {
			await four.stop();
		}
	});
});

describe('figures', () => {
	/** A whole number below another, the same in every run. */
	const dice = (seed: number) => {
		let state = seed;
		return (below: number) => {
			state = (Math.imul(state, 1_103_515_245) + 12_345) >>> 0;
			return Math.floor((state / 2 ** 32) * below);
		};
	};
	it('can be worked out from an export alone: of a month of readers, robots, double clicks, pre-loads and staff', async () => {
		const throwDice = dice(7);
		const [first, readers] = [Date.parse('2026-05-01T00:00Z'), 40];
		const kinds = ['opened', 'opened', 'opened', 'saved', 'read', 'printed', 'turned-away', 'knocked', 'shown', 'looked'] as const;
		const model = lines(out, 'ledger')[0]!;
		const made: ExportLine<'ledger'>[] = [];
		const enter = (at: number, reader: number, more: Partial<ExportLine<'ledger'>>) =>
			made.push({
				...model,
				id: `01990000-0000-7000-8000-${made.length.toString(16).padStart(12, '0')}`,
				at: new Date(at).toISOString(),
				reading: `01990000-0000-7000-9000-${made.length.toString(16).padStart(12, '0')}`,
				reader: 1000 + reader,
				who: 'visitor',
				person: null,
				key: null,
				reason: null,
				source: { kind: 'direct', page: null, placement: null, site: null },
				staff: false,
				robot: false,
				preload: false,
				pages: null,
				device: 'computer',
				controlled: false,
				...more
			});
		const key = lines(out, 'keys')[0]!;
		const [member, holder] = [0, 1];
		for (let n = 0; n < 4500; n++) {
			const kind = kinds[throwDice(kinds.length)]!;
			// close to each other, so that many are double clicks; a tenth of them in the month before
			const day = n < 450 ? -1 - throwDice(30) : throwDice(30);
			const at = first + day * 86_400_000 + throwDice(24) * 3_600_000 + throwDice(40) * 1000 + throwDice(999);
			const which = throwDice(20);
			const from = throwDice(4);
			const reader = throwDice(readers);
			const document = throwDice(3) ? 'notice' : 'warden-handbook';
			enter(at, reader, {
				kind,
				document,
				edition: document === 'notice' ? 1 : 1 + throwDice(2),
				reason: kind === 'turned-away' ? (throwDice(2) ? 'sign-in' : 'not-admitted') : null,
				source: [
					{ kind: 'direct' as const, page: null, placement: null, site: null },
					{ kind: 'page' as const, page: '/volunteers', placement: 'placed-here', site: null },
					{ kind: 'outside' as const, page: null, placement: null, site: 'club.example.org' },
					{ kind: 'news' as const, page: null, placement: null, site: null }
				][from]!,
				pages: kind === 'read' ? [{ page: 1 + throwDice(2), seconds: 1 + throwDice(60) }] : null,
				device: (['computer', 'phone', 'tablet', 'other'] as const)[throwDice(4)]!,
				robot: which === 0,
				preload: which === 1,
				controlled: kind !== 'turned-away' && throwDice(3) === 0,
				...(reader === member ? { who: 'member' as const, person: 'ann@example.org' } : {}),
				...(reader === holder && document === key.document ? { who: 'key' as const, key: key.id } : {}),
				...(which === 2 ? { staff: true, who: 'staff' as const } : {})
			});
		}
		// nobody reads so much in an hour: its whole day is left out
		for (let n = 0; n < 70; n++) enter(first + 5 * 86_400_000 + 10 * 3_600_000 + n * 45_000, 99, { kind: 'opened', document: 'notice', edition: 1 });
		enter(first + 5 * 86_400_000 + 20 * 3_600_000, 99, { kind: 'saved', document: 'notice', edition: 1 });
		const crowd = join(at, 'crowd');
		cpSync(out, crowd, { recursive: true });
		writeFileSync(join(crowd, 'ledger.jsonl'), made.map((line) => JSON.stringify(line)).join('\n'));
		let five = await startOwn({ data: join(at, 'five') });
		try {
			const own = await begin(five);
			// while it does not run; and where the store is another user's, as after ./start by root, what root alone may read is taken in for that user
			await five.stop();
			const asRoot = process.getuid?.() === 0;
			const files = join(at, 'five', 'files');
			if (asRoot) {
				chmodSync(at, 0o755);
				chmodSync(crowd, 0o700);
				execFileSync('chown', ['-R', '65534:65534', files]);
			}
			// another user cannot write down for whoever watches rows what it saw
			const { NODE_OPTIONS } = environment;
			environment.NODE_OPTIONS = '';
			expect((await taken('five', crowd)).fresh.ledger).toBe(made.length);
			environment.NODE_OPTIONS = NODE_OPTIONS;
			const owners = readdirSync(files, { recursive: true, encoding: 'utf8' }).map((name) => statSync(join(files, name)).uid);
			expect(new Set(owners)).toEqual(new Set([asRoot ? 65_534 : process.getuid?.()]));
			five = await startOwn({ data: join(at, 'five'), port: Number(new URL(five.origin).port) });
			const back = join(at, 'crowd-out');
			expect((await ianua('five', 'export', back)).code).toBe(0);
			const entries = lines(back, 'ledger').filter((e) => e.at < '2026-06-01');
			expect(entries.length).toBe(made.length);
			expect(new Set(entries.map((e) => e.leftOut))).toEqual(new Set([null, 'staff', 'robot', 'preload', 'behaviour', 'double']));

			// a second program says the same of every report
			const inForce = new Map([
				['notice', { number: 1, pages: 2 }],
				['warden-handbook', { number: 2, pages: 4 }]
			]);
			const second = recompute(entries, 'Europe/London', inForce);
			const may = { first: '2026-05-01', last: '2026-05-31' };
			const period = `from=${may.first}&until=${may.last}`;
			const get = <T = Json>(path: string) => call<T>(five, own, 'GET', `/readership/${path}?${period}`);
			type Sources = { kind: string; page: string | null; name: string; openings: number; saves: number }[];
			const sourcesIn = (sources: Sources) => sources.map((s) => [s.kind === 'page' || s.kind === 'outside' ? `${s.kind} ${s.page ?? s.name}` : s.kind, s.openings, s.saves]).sort(); // prettier-ignore
			type Report = Json & { sources: Sources; bars: { day: string }[]; documents: ({ slug: string } & Json)[] };
			const bySlug = (some: readonly { slug: string }[]) => [...some].sort((a, b) => (a.slug < b.slug ? -1 : 1));

			const overview = await get<Report>('overview');
			const { sources, documents, ...whole } = second.overview(may);
			expect(overview).toMatchObject(whole);
			expect(sourcesIn(overview.sources)).toEqual(sources);
			expect(Object.fromEntries(overview.sources.map((s) => [s.kind, s.name]))).toEqual({
				...{ direct: 'Straight to the address', page: 'Volunteers, being written', outside: 'club.example.org', key: 'Printer', news: 'News' }
			});
			expect(bySlug(overview.documents)).toMatchObject(bySlug(documents));
			for (const slug of inForce.keys()) {
				const report = await get<Report>(`documents/${slug}`);
				const { sources, week: _, ...rest } = second.document(slug, may);
				expect(report).toMatchObject({ ...rest, people: rest.people.map(({ byKey: _, ...p }) => p), known: rest.people.length });
				expect(sourcesIn(report.sources)).toEqual(sources);
				// nothing of it is empty
				expect([slug, rest.people.length, rest.attention.length, rest.staff.saves > 0, rest.before.openings > 0]).toEqual([slug, slug === key.document ? 2 : 1, 2, true, true]); // prettier-ignore
			}
			const { items: members } = await call<{ items: { id: string; email: string }[] }>(five, own, 'GET', '/members');
			const ann = await get<Report>(`members/${members.find((m) => m.email === 'ann@example.org')!.id}`);
			expect(ann).toMatchObject(second.member('ann@example.org', may));
			expect(ann.documents).toHaveLength(2);

			interface Place {
				slug: string;
				where: string;
				shown: number;
				pressed: number;
				openings: number;
				saves: number;
			}
			const { items: placed } = await get<{ items: Place[] }>('places');
			expect(placed.map((p) => [`${p.slug} ${p.where}`, p.shown, p.pressed, p.openings, p.saves]).sort()).toEqual(second.places(may));
			expect(placed.length).toBe(4);
			interface Away {
				slug: string;
				reason: string;
				page: string | null;
				times: number;
				nameless: number;
				last: string;
			}
			const { items: refused } = await get<{ items: Away[] }>('turned-away');
			expect(refused.map((r) => [`${r.slug} ${r.reason} ${r.page}`, r.times, r.nameless, r.last]).sort()).toEqual(second.turnedAway(may));
			expect(refused.length).toBe(8);

			const { Report_Items } = await get<ItemReportJson>('items');
			const performances = Report_Items.flatMap(({ Items }) =>
				Items.flatMap(({ Item_ID, Attribute_Performance }) =>
					Attribute_Performance.flatMap(({ Access_Type, Performance }) =>
						Object.entries(Performance).map(([metric, months]) => [`${Item_ID.Proprietary.replace('ianua:', '')} ${Access_Type} ${metric}`, months['2026-05']])
					)
				)
			);
			expect(performances.sort()).toEqual(second.items(may));
			expect(performances.length).toBe(2 * 9);

			// the tables that a program takes say the same, every document of them
			const table = async (path: string) => {
				const sent = await fetch(`${five.origin}/api/v1${path}`, { headers: own });
				expect([sent.status, sent.headers.get('content-type')]).toEqual([200, 'text/csv; charset=utf-8; header=present']);
				return Papa.parse<Record<string, string>>(await sent.text(), { header: true, skipEmptyLines: true }).data;
			};
			for (const row of await table(`/readership/overview?${period}&format=csv`)) {
				const { openings, saves, readers, seconds, refusals, before } = documents.find((d) => d.slug === row.document)!;
				expect(row).toMatchObject({
					openings: String(openings),
					saves: String(saves),
					readers: String(readers),
					read_seconds: String(seconds),
					refusals: String(refusals),
					requests_before: String(before),
					period_first: '2026-05-01',
					period_last: '2026-05-31',
					time_zone: 'Europe/London'
				});
			}
			const days = await table(`/readership/documents/notice?${period}&by=day&format=csv`);
			expect(days.map((row) => row.first_day)).toEqual(overview.bars.map((bar) => bar.day));
			expect(days.map((row) => Number(row.openings))).toEqual(second.document('notice', may).bars.map((bar) => bar.openings));
			// every table of every report, as JSON and as CSV
			const id = members.find((m) => m.email === 'ann@example.org')!.id;
			const reports = [
				['overview', reportTables.overview],
				['documents/warden-handbook', reportTables.document],
				[`members/${id}`, reportTables.reader],
				[`keys/${key.id}`, reportTables.reader],
				['places', reportTables.places],
				['turned-away', reportTables.turnedAway]
			] as const;
			type Cell = string | number | boolean | null;
			const rows = new Map<string, Record<string, Cell>[]>();
			for (const [path, names] of reports)
				for (const name of names) {
					const address = `/readership/${path}?${period}&table=${name}`;
					const { columns, items, timeZone } = await call<{ columns: string[]; items: Record<string, Cell>[]; timeZone: string }>(five, own, 'GET', address);
					const cells = (some: readonly Record<string, Cell>[]) => some.map((row) => columns.map((column) => String(row[column] ?? '')));
					expect([address, timeZone, cells(await table(`${address}&format=csv`))]).toEqual([address, 'Europe/London', cells(items)]);
					rows.set(`${path} ${name}`, items);
				}
			const handbook = second.document('warden-handbook', may);
			expect(rows.get('overview hours')!.map((row) => row.requests)).toEqual(whole.week.flat());
			expect(rows.get('documents/warden-handbook pages')).toEqual(
				[1, 2, 3, 4].map((page) => {
					const { seconds, ...rest } = handbook.attention.find((a) => a.page === page) ?? { page, seconds: 0, readers: 0, stops: 0 };
					return { ...rest, read_seconds: seconds };
				})
			);
			expect(rows.get('documents/warden-handbook people')).toMatchObject(
				handbook.people.map((p) => ({
					openings: p.openings,
					saves: p.saves,
					prints: p.printed,
					read_seconds: p.seconds,
					pages_read: p.pagesRead,
					last_at: p.last
				}))
			);
			expect(rows.get('documents/warden-handbook roll')).toEqual([expect.objectContaining({ email: 'ann@example.org', opened: true, groups: 'wardens' })]);
			expect(rows.get(`keys/${key.id} read`)).toEqual([expect.objectContaining({ document: 'warden-handbook', openings: handbook.people.find((p) => p.byKey)!.openings })]); // prettier-ignore
			const marked = await fetch(`${five.origin}/api/v1/readership/turned-away?${period}&format=csv&mark`, { headers: own });
			expect(Buffer.from(await marked.arrayBuffer()).toString('latin1')).toMatch(/^\xef\xbb\xbfdocument,title,reason/);

			// the same by the API, page by page, the oldest first, and what came since
			const read: { id: string; kind: string; leftOut: string | null; reader: string }[] = [];
			let [cursor, goOn] = ['', ''];
			do {
				const page = await call<{ items: typeof read; next: string | null; since: string }>(
					five, own, 'GET', `/ledger?${period}&order=oldest&counted=true&limit=500${cursor}`
				); // prettier-ignore
				read.push(...page.items);
				goOn = page.since;
				cursor = page.next === null ? '' : `&cursor=${page.next}`;
			} while (cursor);
			const inMay = entries.filter((e) => e.at >= '2026-04-30T23:00:00' && e.at < '2026-05-31T23:00:00');
			expect(read.map((e) => [e.id, e.leftOut])).toEqual(inMay.map((e) => [e.id, e.leftOut]));
			const { items: since } = await call<{ items: unknown[] }>(five, own, 'GET', `/ledger?since=${goOn}`);
			expect(since).toEqual([]);
			const requested = read.filter((e) => e.leftOut === null && (e.kind === 'opened' || e.kind === 'saved'));
			expect(new Set(requested.map((e) => e.reader)).size).toBe(whole.figures.readers);
		} finally {
			await five.stop();
		}
	});
});

describe('a folder from elsewhere', () => {
	it('comes in with what its table says, and old links live on', async () => {
		const folder = join(at, 'elsewhere');
		mkdirSync(join(folder, 'minutes'), { recursive: true });
		writeFileSync(join(folder, 'minutes', 'May meeting.pdf'), await pdf('May', 2));
		writeFileSync(join(folder, 'Map.PDF'), await pdf('Towpath map', 1));
		const table = (rows: string[][]) =>
			writeFileSync(
				join(folder, 'about.csv'),
				Papa.unparse([['File', 'Title', 'Topics', 'Folder', 'Door', 'Groups', 'Date', 'Old addresses', 'Department', 'Remarks'], ...rows])
			);
		const good = ['minutes/May meeting.pdf', 'Minutes, May 2019', 'minutes; trustees', 'Minutes', 'keyed', 'wardens', '2019-05-14', '/wp/2019/05/may.pdf; https://old.example.org/files/May%20meeting.pdf', 'Works', 'x']; // prettier-ignore
		table([good, ['missing.pdf', '', '', '', '', '', '', '', '', '']]);
		expect((await ianua('two', 'import', folder)).err).toContain('line 3: There is no PDF “missing.pdf” in the folder.');
		table([[...good.slice(0, 4), 'gaping', ...good.slice(5)]]);
		expect((await ianua('two', 'import', folder)).err).toContain('line 2: “gaping” is no position of a door');
		table([[...good.slice(0, 1), 'x'.repeat(201), ...good.slice(2)]]);
		expect((await ianua('two', 'import', folder)).err).toMatch(/May meeting\.pdf: “title” must NOT have more than 200 characters/);
		table([good]);
		writeFileSync(join(folder, 'letter.pdf'), 'Dear all, this is no PDF.');
		expect((await ianua('two', 'import', folder)).err).toMatch(/letter\.pdf: .*PDF/);
		writeFileSync(join(folder, 'letter.pdf'), await pdf('A letter', 1));
		expect(await taken('two', folder, '--look')).toMatchObject({
			fresh: { documents: 3 },
			notes: ['Columns that mean nothing here stay out: Remarks.', expect.stringMatching(/^2 PDFs stand in no line of the table/)],
			done: false
		});
		expect(await taken('two', folder)).toMatchObject({ fresh: { documents: 3 }, here: 0, done: true });
		const there = await signOwnerIn(two);
		expect(await call(two, there, 'GET', '/documents/minutes-may-2019')).toMatchObject({
			title: 'Minutes, May 2019',
			topics: ['minutes', 'trustees'],
			folder: 'Minutes',
			fileName: 'May meeting.pdf',
			fields: { department: 'Works' },
			createdAt: '2019-05-13T23:00:00.000Z',
			door: { position: 'keyed', groups: ['wardens'] }
		});
		const followed = await fetch(`${two.origin}/files/May%20meeting.pdf`, { headers: { ...there, 'user-agent': browserAgent }, redirect: 'manual' });
		expect([followed.status, followed.headers.get('location')]).toEqual([301, expect.stringContaining('/d/minutes-may-2019')]);
		expect(await call(two, there, 'GET', '/documents/map')).toMatchObject({ door: { position: 'shut' } });
		expect(await taken('two', folder)).toMatchObject({ fresh: { documents: 0 }, here: 3 });
	});
});
