// Some weeks of made-up readership: a weekly rhythm, a burst after a mailing, robots, double clicks, staff and refusals.
import { spanOf } from '#core/access/hours';
import { decide, type RefusedCode, type Who } from '#core/access/decide';
import { sql } from '#server/db/client';
import { find } from '#server/reading/find';
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

/** Writes the ledger of the last `days` days. Every entry is what the chain would have made of such a request. */
export async function loadReadership(
	documents: readonly Popular[],
	readers: readonly DemoReader[],
	groupIds: ReadonlyMap<string, string>,
	staffId: string,
	now: number,
	zone: string,
	days = 42
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
		memberships: r.memberships.map((m) => ({ group: groupIds.get(m.group)!, span: spanOf(m.from, m.until, zone) }))
	}));
	const rows: Record<string, unknown>[] = [];

	for (const { slug, weekly, age } of documents) {
		const found = await find(slug);
		if (!found) throw new Error(`demo: no document ${slug}`);
		const places = placements.filter((p) => p.slug === slug);
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
				...extra
			});
		};
		const open = found.position === 'open' || found.position === 'ajar';
		for (let back = Math.min(days, age) - 1; back >= 0; back--) {
			const start = now - back * dayMs;
			const burst = slug === 'lock-warden-handbook' && back <= 20 && back >= 17 ? 4 : 1;
			const expected = (weekly / 7) * rhythm[new Date(start).getUTCDay()]! * burst;
			const count = Math.floor(expected) + (random.next() < expected % 1 ? 1 : 0);
			for (let n = 0; n < count; n++) {
				// between seven in the morning and eleven at night
				const at = Date.parse(`${new Date(start).toISOString().slice(0, 10)}T07:00Z`) + Math.floor(random.next() * 16 * 3_600_000);
				const asVisitor = open ? random.next() < 0.8 : random.next() < 0.15;
				const who: Who & { id?: string } = asVisitor ? { kind: 'visitor' } : random.pick(whos);
				const reader = who.kind === 'member' ? `p:${who.id}` : `c:demo-${random.whole(1, 400)}`;
				const decision = decide(who, found.thing, 'read', at);
				if (!decision.allowed) {
					const code = decision.reasons[0].code as RefusedCode;
					if (code !== 'shut') enter(at, 'turned-away', who, reader, { reason: code });
					continue;
				}
				enter(at, 'opened', who, reader);
				if (random.next() < 0.06) enter(at + 12_000, 'opened', who, reader); // a double click
				if (found.thing.door.allow.save && random.next() < 0.28) enter(at + random.whole(40, 400) * 1000, 'saved', who, reader);
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
	const kept = rows.filter((r) => (r.at as Date).getTime() < now);
	for (const month of new Set(kept.map((r) => (r.at as Date).toISOString().slice(0, 7)))) await sql()`select ledger_month(${`${month}-01`}::date)`;
	for (let i = 0; i < kept.length; i += 500) await sql()`insert into ledger ${sql()(kept.slice(i, i + 500))}`;
	return kept.length;
}
