// What offers undo puts back everything that it changed: each field of a door, from the server's own record. And what is set aside is told of.
import { expect, it } from 'vitest';
import { DoorChange } from '#core/access/door';
import { sql } from '#server/db/client';
import { DocumentChange } from '#server/documents/change';
import { GroupChange, MemberChange } from '#server/people/members';
import { SiteChange } from '#server/site/site';
import { document, member, pdf, staff, until, visitor, type Client, type DocumentJson } from './help';

type Undo = { undo: unknown[]; asks?: { page: string; document: string; placement: string; front: boolean }[] };

it('every field of a door, changed and undone', async () => {
	const boss = await staff();
	const someone = await member({ group: 'Undone' });
	const path = `/undone-${process.pid}`;
	await boss.api('POST', '/pages', { path, title: 'Undone', layout: 'article', content: { type: 'doc', content: [] } });
	const cases: Record<string, unknown> = {
		position: 'open',
		allMembers: true,
		groups: ['undone'],
		people: [someone.email],
		follows: path,
		from: '2026-01-01',
		until: '2099-01-01',
		allow: { save: false, print: false },
		listed: false,
		announced: true,
		stamped: true,
		turnedAway: { heading: 'Not now', words: 'Come back.', button: { label: 'Home', target: '/' }, knock: false }
	};
	// a field that is new has to be given a case here
	expect(Object.keys(cases).sort()).toEqual(Object.keys(DoorChange.properties).sort());
	const { slug } = await document({ position: 'keyed' });
	const door = async () => {
		const { sentence: _s, count: _c, ...rest } = (await boss.api<DocumentJson>('GET', `/documents/${slug}`)).door;
		return rest;
	};
	const before = await door();
	for (const [field, value] of Object.entries(cases)) {
		const { undo } = await boss.api<Undo>('POST', '/bulk', { documents: [slug], door: { [field]: value } });
		expect([field, (await door()) as unknown]).not.toEqual([field, before]);
		await boss.api('POST', '/bulk/undo', { undo });
		expect([field, await door()]).toEqual([field, before]);
	}
	const { undo } = await boss.api<Undo>('POST', '/bulk', { documents: [slug], door: cases });
	await boss.api('POST', '/bulk/undo', { undo });
	expect(await door()).toEqual(before);
});

it('a document set aside that readers meet on a page: the places are told first, and the dead end afterwards', async () => {
	const boss = await staff();
	const paper = await document({ position: 'open' });
	const path = `/met-${process.pid}`;
	const id = 'placement-met-1';
	await boss.api('POST', '/pages', {
		path,
		title: 'Where it is met',
		layout: 'article',
		content: { type: 'doc', content: [{ type: 'placement', attrs: { id, document: paper.slug, form: 'button', press: 'page' } }] },
		door: { position: 'open' }
	});
	await boss.api('POST', `/pages/${path.slice(1)}/publish`, {});
	const asked = await boss.api<Undo>('POST', '/bulk', { documents: [paper.slug], aside: true, ask: true });
	expect(asked).toMatchObject({ undo: [], asks: [{ page: path, document: paper.slug, placement: id, front: false }] });
	expect((await visitor().get(`/d/${paper.slug}`)).status).toBe(200);

	const { undo } = await boss.api<Undo>('POST', '/bulk', { documents: [paper.slug], aside: true });
	expect((await visitor().get(`/d/${paper.slug}`)).status).toBe(404);
	const found = async () => (await boss.api<{ items: { kind: string; remedies: string[] }[] }>('GET', `/mismatches?page=${path}`)).items;
	expect(await found()).toMatchObject([{ kind: 'dead-end', remedies: ['restore', 'take-out'] }]);
	await boss.api('POST', '/mismatches', { page: path, document: paper.slug, placement: id, remedy: 'restore' });
	expect(await found()).toEqual([]);
	expect((await visitor().get(`/d/${paper.slug}`)).status).toBe(200);
	await boss.api('POST', '/bulk', { documents: [paper.slug], aside: true });
	await boss.api('POST', '/bulk/undo', { undo });
	expect((await visitor().get(`/d/${paper.slug}`)).status).toBe(200);
	// with nothing in the way, nothing is asked
	const lone = await document({ position: 'open' });
	expect((await boss.api<Undo>('POST', '/bulk', { documents: [lone.slug], aside: true, ask: true })).asks).toBeUndefined();
});

/** As a thing is shown, without what is not set and when it was changed last. */
const bare = (value: unknown): unknown =>
	Array.isArray(value)
		? value.map(bare)
		: value !== null && typeof value === 'object'
			? Object.fromEntries(
					Object.entries(value)
						.filter(([name, v]) => v !== null && !(Array.isArray(v) && !v.length) && !['changedAt', 'changedBy', 'seenAt'].includes(name))
						.map(([name, v]) => [name, bare(v)])
				)
			: value;

/** Changes each field of a thing and sends back what the answer says was before: afterwards all is as it was. A field that is new needs a case. */
async function eachField(boss: Client, path: string, fields: Record<string, unknown>, cases: Record<string, unknown>) {
	expect(Object.keys(cases).sort()).toEqual(Object.keys(fields).sort());
	const view = async () => bare(await boss.api('GET', path));
	const before = await view();
	for (const change of [...Object.entries(cases).map(([field, value]) => ({ [field]: value })), cases]) {
		const answer = await boss.api<{ before: object }>('PATCH', path, change);
		expect([change, await view()]).not.toEqual([change, before]);
		expect(Object.keys(answer.before).sort()).toEqual(Object.keys(change).sort());
		await boss.api('PATCH', path, answer.before);
		expect([change, await view()]).toEqual([change, before]);
	}
}

it('every field of a document, changed and undone', async () => {
	const boss = await staff();
	const { slug } = await document({ position: 'open' }, 2);
	const path = `/documents/${slug}`;
	await boss.api('PATCH', '/site', { fields: [{ name: 'kept-by', words: 'Kept by', kind: 'text', listed: true, filtered: false }] });
	await boss.api('PATCH', path, { description: 'What it was', folder: 'Former', topics: ['one', 'two'], coverAlt: 'A cover' });
	const form = new FormData();
	form.append('file', new Blob([(await pdf(`Another edition ${process.pid}`, 3)) as BlobPart], { type: 'application/pdf' }), 'another.pdf');
	await boss.send('POST', `/api/v1${path}/editions`, form);
	await until(async () => (await boss.api<{ editions: { condition: string }[] }>('GET', path)).editions.every((e) => e.condition !== 'checking'));
	const { slug: _s, ...others } = DocumentChange.properties;
	await eachField(boss, path, others, {
		title: 'Called otherwise',
		description: 'What it is',
		folder: 'Latter',
		topics: ['three'],
		fields: { 'kept-by': 'Works' },
		review: { on: '2031-03-31', by: 'olive@example.org' },
		language: 'cy',
		coverAlt: 'Another cover',
		coverPage: 2,
		reading: { way: 'book' },
		receipt: 'once',
		edition: 1,
		door: { position: 'keyed', listed: false }
	});
	const moved = await boss.api<{ slug: string; before: object }>('PATCH', path, { slug: `${slug}-moved` });
	expect(moved.before).toEqual({ slug });
	await boss.api('PATCH', `/documents/${moved.slug}`, moved.before);
	expect((await boss.api<DocumentJson>('GET', path)).slug).toBe(slug);
});

it('every field of a member, of a group and of the site, changed and undone', async () => {
	const boss = await staff();
	const someone = await member({ group: 'Put back' });
	await member({ group: 'Put elsewhere' });
	await eachField(boss, `/members/${someone.id}`, MemberChange.properties, {
		name: 'Otherwise Called',
		email: `otherwise-${process.pid}@example.org`,
		suspended: true,
		memberships: [{ group: 'put-elsewhere', from: '2026-01-01', until: '2027-01-01' }]
	});
	await eachField(boss, '/groups/put-back', GroupChange.properties, { name: 'Called otherwise', description: 'What it is for' });
	const picture = 'ab'.repeat(32);
	await eachField(boss, '/site', SiteChange.properties, {
		turnedAway: { heading: 'Not now', words: 'Come back.', button: null, knock: false },
		contact: 'weak@example.org',
		name: 'Another name',
		zone: 'America/Chicago',
		placing: { cover: { press: 'over' } },
		reading: { way: 'book' },
		language: 'pl',
		mark: picture,
		favicon: picture,
		colour: '#5a2d82',
		background: '#fffdf5',
		band: picture,
		foot: { address: 'Another street', words: 'Said below.' },
		notice: { words: 'Closed on Monday', path: null, until: '2031-01-01' },
		readership: { months: 12 },
		fields: [{ name: 'otherwise', words: 'Otherwise', kind: 'date', listed: false, filtered: false }],
		documentPage: 'particulars',
		front: '/',
		llms: false,
		programOrigins: ['https://programs.example.org'],
		framers: ['else.example']
	});
	const path = `/navigated-${process.pid}`;
	await boss.api('POST', '/pages', { path, title: 'Navigated', layout: 'article', content: { type: 'doc', content: [] } });
	const first = await boss.api<{ before: { paths: string[] } }>('PATCH', '/navigation', { paths: [path] });
	const second = await boss.api<{ before: { paths: string[] } }>('PATCH', '/navigation', first.before);
	expect(second.before).toEqual({ paths: [path] });
});

it('another door for a document that readers meet on pages: asked about where it would turn them away, alone and in bulk', async () => {
	const boss = await staff();
	const [paper, other] = [await document({ position: 'open' }), await document({ position: 'open' })];
	const someone = await member({ group: 'Readers of it' });
	await member({ group: 'Others' });
	const pageOf = async (path: string, door: Record<string, unknown>, documents: readonly DocumentJson[]) => {
		const content = documents.map((d, i) => ({
			type: 'placement',
			attrs: { id: `narrowed${path.replaceAll(/\W/g, '')}${i}`, document: d.slug, form: 'button', press: 'page' }
		}));
		await boss.api('POST', '/pages', { path, title: `At ${path}`, layout: 'article', content: { type: 'doc', content }, door });
		await boss.api('POST', `/pages/${path.slice(1)}/publish`, {});
	};
	const [everyone, theirs] = [`/narrowed-${process.pid}`, `/narrowed-for-${process.pid}`];
	await pageOf(everyone, { position: 'open' }, [paper, other]);
	await pageOf(theirs, { position: 'keyed', groups: ['readers-of-it'] }, [paper]);
	const ask = (door: Record<string, unknown>, documents = [paper.slug]) => boss.api<Undo>('POST', '/bulk', { documents, door, ask: true });
	const pages = async (asked: Promise<Undo>) => (await asked).asks?.map((a) => a.page).sort();
	const both = [everyone, theirs].sort();
	expect(await pages(ask({ position: 'shut' }))).toEqual(both);
	expect(await pages(ask({ until: '2030-01-01' }))).toEqual(both);
	expect(await pages(ask({ position: 'shut' }, [other.slug, paper.slug]))).toEqual([everyone, ...both].sort());
	// members of the group are let in still, others who come to the open page are not
	expect(await pages(ask({ position: 'keyed', groups: ['readers-of-it'] }))).toEqual([everyone]);
	expect(await pages(ask({ follows: theirs }))).toEqual([everyone]);
	expect(await pages(ask({ position: 'keyed', people: [someone.email] }))).toContain(everyone);
	// nothing was changed by asking
	expect((await visitor().get(`/d/${paper.slug}/file`)).status).toBe(200);
	// who does not turn anybody away is not asked: neither a wider door, nor what has nothing to do with who comes in
	const { undo, asks } = await ask({ position: 'ajar', allow: { save: true, print: false }, listed: false });
	expect(asks).toBeUndefined();
	await boss.api('POST', '/bulk/undo', { undo });
	// asked and answered: then it is done; and done already, nobody is asked again
	await boss.api('POST', '/bulk', { documents: [paper.slug], door: { position: 'shut' } });
	expect((await visitor().get(`/d/${paper.slug}/file`)).status).toBe(404);
	expect((await ask({ position: 'shut', listed: false })).asks).toBeUndefined();
});

it('an entry of a pocket page is taken out like a placement of an article, from what is published too', async () => {
	const boss = await staff();
	const [paper, stays] = [await document({ position: 'open' }), await document({ position: 'open' })];
	const path = `/pocketed-${process.pid}`;
	const entries = [paper, stays].map((d, i) => ({ id: `pocketed-entry-${i}`, document: d.slug, words: `Entry ${i}` }));
	await boss.api('POST', '/pages', { path, title: 'In the pocket', layout: 'pocket', content: { entries }, door: { position: 'open' } });
	await boss.api('POST', `/pages/${path.slice(1)}/publish`, {});
	const { asks } = await boss.api<Undo>('POST', '/bulk', { documents: [paper.slug], aside: true, ask: true });
	expect(asks).toMatchObject([{ page: path, placement: 'pocketed-entry-0' }]);
	const refused = await boss.send('POST', '/api/v1/mismatches', { page: path, document: paper.slug, placement: 'pocketed-entry-0', remedy: 'locked' });
	expect(refused.status).toBe(422);
	await boss.api('POST', '/mismatches', { page: path, document: paper.slug, placement: 'pocketed-entry-0', remedy: 'take-out' });
	const shown = await (await visitor().get(path)).text();
	expect([shown.includes('Entry 0'), shown.includes('Entry 1')]).toEqual([false, true]);
});

it('other websites on which readers met a document lately stand on its sheet, and are told before they are turned away there', async () => {
	const boss = await staff();
	const [met, quiet, keptOne] = [await document({ position: 'open' }), await document({ position: 'open' }), await document({ position: 'keyed', groups: [] })];
	const from = { referer: 'https://walks.example.com/route-7' };
	for (let n = 0; n < 2; n++) await (await visitor(crypto.randomUUID()).get(`/d/${met.slug}/file`, from)).arrayBuffer();
	type Elsewhere = { undo: unknown[]; elsewhere?: { document: string; site: string; openings: number }[] };
	const ask = (documents: string[], change: object) => boss.api<Elsewhere>('POST', '/bulk', { documents, ...change, ask: true });
	const told = [{ document: met.slug, site: 'walks.example.com', openings: 2 }];
	// one that may not frame documents only links to them: at the end
	await boss.api('PATCH', '/site', { framers: ['*.example.com'] });
	// a report waits for its sums a moment only: what nothing is known of yet would be done, not asked
	await until(async () => {
		await boss.api('GET', '/readership/overview');
		const [row] = await sql()<{ n: number }[]>`
			select sum(s.openings)::int as n from sum_source s join document d on d.id = s.document_id where d.slug = ${met.slug} and s.span = 'day' and s.outside is not null`;
		return row?.n === 2;
	});
	const first = await ask([met.slug, quiet.slug], { door: { position: 'shut' } });
	expect(first.undo).toEqual([]);
	expect(first.elsewhere).toMatchObject(told);
	expect((await ask([met.slug], { aside: true })).elsewhere).toMatchObject(told);
	expect(await boss.api('GET', `/documents/${met.slug}`)).toMatchObject({ door: { position: 'open' }, setAsideAt: null });
	expect(await (await boss.get(`/desk/documents/${met.slug}`, { accept: 'text/html' })).text()).toContain('walks.example.com');
	// of what turns nobody away there, or was met nowhere else, nothing is asked
	for (const [documents, change] of [
		[[met.slug], { door: { position: 'ajar' } }],
		[[met.slug], { door: { allow: { save: false, print: true } } }],
		[[quiet.slug], { door: { position: 'shut' } }],
		[[keptOne.slug], { aside: true }]
	] as const) {
		const done = await ask([...documents], change);
		expect([change, done.elsewhere, done.undo.length]).toEqual([change, undefined, 1]);
	}
	await boss.api('PATCH', '/site', { framers: [] });
	expect((await ask([met.slug], { door: { position: 'shut' } })).elsewhere).toBeUndefined();
});
