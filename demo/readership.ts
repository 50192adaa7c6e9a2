// Half a year of made-up readership: a weekly rhythm, a burst after a mailing, pages attended to, placements shown, robots by name and by
// behaviour, double clicks, staff and refusals.
import { spanOf } from '#core/access/hours';
import { decide, type RefusedCode, type Who } from '#core/access/decide';
import { robotOpeningsAnHour, type Device } from '#core/readership/counting';
import { sql } from '#server/db/client';
import { resolve } from '#server/reading/resolve';
import { v7 } from 'uuid';
import { Random } from './random';

const dayMs = 86_400_000;

export interface DemoReader {
	readonly id: string;
	readonly memberships: readonly { group: string; from: string | null; until: string | null }[];
}

interface Popular {
	readonly slug: string;
	readonly weekly: number;
	readonly age: number;
}

const outside = ['paddlers.example.net', 'walks.example.com', 'news.example.net'];
/** Visits by weekday, Sunday first: people plan their weekends. */
const rhythm = [1.3, 0.7, 0.8, 0.9, 1.1, 1.4, 1.2];

/** Shares of devices: most read on the sofa, walks and boats are read on phones. */
const deviceOf = (random: Random): Device => {
	const n = random.next();
	return n < 0.52 ? 'computer' : n < 0.86 ? 'phone' : n < 0.97 ? 'tablet' : 'other';
};

/** How a reading went: through all pages by the thorough, else some from the front, with a favourite early and a place where many stop. */
function attentionOf(random: Random, pages: number, thorough: boolean): { page: number; seconds: number }[] {
	const favourite = Math.max(1, Math.round(pages * 0.2));
	const stop = Math.max(1, Math.round(pages * 0.34));
	const furthest = thorough ? pages : random.next() < 0.3 ? stop : Math.max(1, Math.round(pages * random.next() ** 2));
	const out: { page: number; seconds: number }[] = [];
	for (let page = 1; page <= Math.min(furthest, 120); page++) {
		const liked = Math.exp(-((page - favourite) ** 2) / (2 + pages / 6));
		const seconds = Math.round(10 * (1 + 14 * random.next() ** 2 + 40 * liked * random.next())) / 10;
		if (thorough || random.next() < 0.85) out.push({ page, seconds: thorough ? seconds + 2 : seconds });
	}
	return out.length ? out : [{ page: 1, seconds: 4 }];
}

/** Writes the ledger of the last `days` days. Every entry is what the chain would have made of such a request. */
export async function loadReadership(
	documents: readonly Popular[],
	readers: readonly DemoReader[],
	groupIds: ReadonlyMap<string, string>,
	staffId: string,
	now: number,
	zone: string,
	days = 182
): Promise<number> {
	const random = new Random(1898);
	const placements = await sql()<
		{ id: string; page_id: string; slug: string }[]
	>`select p.id, p.page_id, d.slug from placement p join document d on d.id = p.document_id where p.published`;
	const openPages = new Set(
		(await sql()<{ id: string }[]>`select p.id from page p join door d on d.id = p.door_id where d.position = 'open'`).map((p) => p.id)
	);
	const whos = readers.map((r): Who & { id: string } => ({
		kind: 'member',
		id: r.id,
		suspended: false,
		// the demo's groups are made before its members
		memberships: r.memberships.map((m) => ({ group: groupIds.get(m.group)!, span: spanOf(m.from, m.until, zone) }))
	}));
	const rows: Record<string, unknown>[] = [];
	let mailed: { document: string; edition: string; people: string[] } | null = null;

	for (const { slug, weekly, age } of documents) {
		const found = await resolve(slug);
		if (!found) throw new Error(`demo: no document ${slug}`);
		const places = placements.filter((p) => p.slug === slug);
		if (slug === 'lock-warden-handbook')
			mailed = {
				document: found.id,
				edition: found.edition.id,
				people: whos
					.filter((w) => decide(w, found.thing, 'read', now).allowed)
					.map((w) => w.id)
					.slice(0, 9)
			};
		const enter = (at: number, kind: string, who: Who & { id?: string }, reader: string, extra: Record<string, unknown> = {}) => {
			// somebody turned away at the document came from a page that let them in
			const from = kind === 'turned-away' ? places.filter((p) => openPages.has(p.page_id)) : places;
			const place = from.length && random.next() < 0.75 ? random.pick(from) : null;
			const site = !place && random.next() < 0.3 ? random.pick(outside) : null;
			const id = v7({ msecs: at });
			rows.push({
				id,
				at: new Date(at),
				kind,
				document_id: found.id,
				edition_id: found.edition.id,
				reading_id: id,
				reader,
				who: who.kind,
				person_id: who.id ?? null,
				reason: null,
				source_kind: place ? 'page' : site ? 'outside' : 'direct',
				page_id: place?.page_id ?? null,
				placement_id: place?.id ?? null,
				outside: site,
				staff: who.kind === 'staff',
				robot: false,
				preload: false,
				device: deviceOf(random),
				controlled: !open,
				attention: null,
				...extra
			});
			return id;
		};
		const open = found.standing.position === 'open' || found.standing.position === 'ajar';
		const kept = open ? whos : whos.filter((w) => !decide(w, found.thing, 'read', now).allowed);
		// every sixth of them has not come yet
		const admitted = open ? [] : whos.filter((w) => decide(w, found.thing, 'read', now).allowed).filter((_, i) => i % 6 !== 4);
		for (let back = Math.min(days, age) - 1; back >= 0; back--) {
			const start = now - back * dayMs;
			const burst = slug === 'lock-warden-handbook' && back <= 20 && back >= 17 ? 4 : 1;
			const expected = (weekly / 7) * rhythm[new Date(start).getUTCDay()]! * burst;
			const count = Math.floor(expected) + (random.next() < expected % 1 ? 1 : 0);
			for (let n = 0; n < count; n++) {
				// between seven in the morning and eleven at night
				const at = Date.parse(`${new Date(start).toISOString().slice(0, 10)}T07:00Z`) + Math.floor(random.next() * 16 * 3_600_000);
				const asVisitor = open ? random.next() < 0.8 : random.next() < 0.12;
				// who reads what is kept for some is mostly one of them
				const among = open ? whos : admitted.length && random.next() < 0.7 ? admitted : kept.length ? kept : whos;
				const who: Who & { id?: string } = asVisitor ? { kind: 'visitor' } : random.pick(among);
				const reader = who.kind === 'member' ? `p:${who.id}` : `c:demo-${random.whole(1, 400)}`;
				const decision = decide(who, found.thing, 'read', at);
				if (!decision.allowed) {
					const code = decision.reasons[0].code as RefusedCode;
					if (code !== 'shut') enter(at, 'turned-away', who, reader, { reason: code });
					continue;
				}
				if (random.next() < 0.4) enter(at - 20_000, 'looked', who, reader);
				const reading = enter(at, 'opened', who, reader);
				if (random.next() < 0.75 && found.edition.pages) {
					const thorough = found.edition.pages <= 60 && random.next() < (who.kind === 'member' ? 0.45 : 0.2);
					enter(at + 90_000, 'read', who, reader, { reading_id: reading, attention: attentionOf(random, found.edition.pages, thorough) });
				}
				if (random.next() < 0.06) enter(at + 12_000, 'opened', who, reader); // a double click
				if (found.thing.door.allow.save && random.next() < 0.28) enter(at + random.whole(40, 400) * 1000, 'saved', who, reader);
			}
			for (const place of places) {
				if (!openPages.has(place.page_id)) continue;
				for (let n = random.whole(3, 9); n > 0; n--)
					enter(start - random.whole(0, 8) * 3_600_000, 'shown', { kind: 'visitor' }, `c:demo-${random.whole(1, 400)}`, {
						source_kind: 'page',
						page_id: place.page_id,
						placement_id: place.id,
						outside: null
					});
			}
			if (open && random.next() < 0.3)
				enter(start - 3_600_000, 'opened', { kind: 'visitor' }, `a:robot-${random.whole(1, 3)}`, {
					robot: true,
					source_kind: 'direct',
					page_id: null,
					placement_id: null,
					outside: null
				});
			if (random.next() < 0.12)
				enter(start - 1_800_000, 'opened', { kind: 'staff', id: staffId }, `p:${staffId}`, {
					source_kind: 'desk',
					page_id: null,
					placement_id: null,
					outside: null
				});
		}
	}
	remind(rows, mailed, now);
	if (mailed) await giveReceipts(rows, mailed.document, now);
	robotAtWork(rows, now);
	const kept = rows.filter((r) => (r.at as Date).getTime() < now);
	for (const month of new Set(kept.map((r) => (r.at as Date).toISOString().slice(0, 7)))) await sql()`select ledger_month(${`${month}-01`}::date)`;
	for (let i = 0; i < kept.length; i += 500)
		await sql()`insert into ledger select * from jsonb_populate_recordset(null::ledger, ${sql().json(kept.slice(i, i + 500) as never)})`;
	return kept.length;
}

/** Those who were mailed that they had not opened the handbook: twenty days ago, in the morning. */
function remind(rows: Record<string, unknown>[], mailed: { document: string; edition: string; people: string[] } | null, now: number): void {
	for (const person of mailed?.people ?? []) {
		const at = Date.parse(`${new Date(now - 20 * dayMs).toISOString().slice(0, 10)}T08:30Z`);
		const id = v7({ msecs: at });
		rows.push({
			// the demo mails this document
			...{ id, at: new Date(at), kind: 'reminded', document_id: mailed!.document, edition_id: mailed!.edition, reading_id: id, reader: `p:${person}` },
			...{ who: 'member', person_id: person, source_kind: 'desk', staff: false, robot: false, preload: false }
		});
	}
}

/** The handbook asks for a receipt of each edition; every other of those who opened it, but the member whom one signs in as, has given one, a while after. */
async function giveReceipts(rows: Record<string, unknown>[], document: string, now: number): Promise<void> {
	const [reader] = await sql()<{ id: string }[]>`select id from person where email = 'wren.lockyer@example.org'`;
	const opened = new Map(
		rows.filter((r) => r.document_id === document && r.kind === 'opened' && r.who === 'member' && r.person_id !== reader?.id).map((r) => [r.person_id, r])
	);
	await sql()`update document set receipt = 'each-edition' where id = ${document}`;
	const givers = [...opened.values()].filter((r, n) => n % 2 === 0 && (r.at as Date).getTime() + 1_200_000 < now);
	for (const r of givers) {
		const at = new Date((r.at as Date).getTime() + 1_200_000);
		const id = v7({ msecs: at.getTime() });
		rows.push({
			...{ id, at, kind: 'receipt', document_id: document, edition_id: r.edition_id, reading_id: id, reader: r.reader, who: 'member', person_id: r.person_id },
			...{ source_kind: 'direct', staff: false, robot: false, preload: false }
		});
		await sql()`insert into receipt (person_id, document_id, edition_id, at) values (${r.person_id as string}, ${document}, ${r.edition_id as string}, ${at})`;
	}
}

/** A robot that gives no name, told by its behaviour: it opens one document over and over within an hour, five days ago. */
function robotAtWork(rows: Record<string, unknown>[], now: number): void {
	const pattern = rows.find((r) => r.kind === 'opened' && r.who === 'visitor');
	if (!pattern) return;
	const from = Date.parse(`${new Date(now - 5 * dayMs).toISOString().slice(0, 10)}T03:00Z`);
	for (let n = 0; n <= robotOpeningsAnHour + 20; n++) {
		const at = from + n * 40_000;
		const id = v7({ msecs: at });
		rows.push({
			...pattern,
			id,
			at: new Date(at),
			reading_id: id,
			reader: 'a:busy-robot',
			source_kind: 'direct',
			page_id: null,
			placement_id: null,
			outside: null
		});
	}
}
