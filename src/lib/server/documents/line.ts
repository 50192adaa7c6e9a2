// A line of the documents room: what the table and the wall show of one document.
import type postgres from 'postgres';
import type { Position } from '#core/access/door';
import { dayOf } from '#core/access/hours';
import { sentence, whoWords } from '#core/access/reach';
import { coverMark, type Cover } from '#core/documents/cover';
import type { Condition, Facts, Finding } from '#core/intake/condition';
import { paperWords } from '#core/intake/paper';
import { positionNow, reachOf, type DoorRow } from '../access/doors';
import { sql } from '../db/client';
import { lists } from '../placing/placed';
import { readersOfEach } from '../readership/sums/figures';

/** How the four stations of the passage stand. */
export interface Passage {
	readonly in: 'to-do' | 'done' | 'wrong';
	readonly door: 'done' | 'to-do';
	/** `wrong`: a dead end or a side door that is not meant to be; told where the rooms ask for it. */
	readonly placed: 'to-do' | 'done' | 'wrong';
	readonly read: 'done' | 'to-do';
}

export interface DocumentLine {
	readonly id: string;
	readonly slug: string;
	readonly title: string;
	readonly folder: string;
	readonly topics: readonly string[];
	readonly language: string | null;
	readonly pages: number;
	readonly bytes: number;
	readonly sha256: string;
	readonly paper: string;
	readonly description: string;
	/** Height to width of its first pages' size; null where the cover is no page. */
	readonly ratio: number | null;
	readonly coverAlt: string;
	readonly edition: number;
	readonly editionAt: string;
	readonly createdAt: string;
	readonly createdBy: string | null;
	readonly setAsideAt: string | null;
	readonly condition: Condition;
	/** What was last seen at the web address it came from; null where it came from none. */
	readonly sourceState: 'same' | 'changed' | 'gone' | 'unreachable' | null;
	/** Changes with what the cover shows, for its address. */
	readonly coverMark: string;
	readonly door: { readonly position: Position; readonly who: string; readonly sentence: string; readonly count: number };
	readonly placements: number;
	/** Published pages with a list in which it stands for those who may open it, by its folder, a topic or a field. */
	readonly listedOn: number;
	readonly passage: Passage;
	/** Distinct readers in 30 days, and openings for each of those days. */
	readonly readers: number;
	readonly days: readonly number[];
}

interface LineRow {
	id: string;
	slug: string;
	title: string;
	folder: string;
	topics: string[];
	language: string | null;
	cover: Cover | null;
	cover_alt: string;
	description: string;
	pages: number;
	bytes: string;
	sha256: string;
	sizes: Facts['sizes'];
	number: number;
	edition_at: Date;
	created_at: Date;
	created_by_name: string | null;
	set_aside_at: Date | null;
	condition: Condition['status'];
	findings: Finding[];
	source_state: DocumentLine['sourceState'];
	door: DoorRow;
	placements: number;
	listed_on: number;
	ever: boolean;
	days: { day: string; n: number }[];
}

const dayMs = 86_400_000;

/** What a line is made of, with its readers of 30 days: of all of them at once, as row by row would take longer than all else. */
export type LineFigures = LineRow & { readonly readers: number };

/** Of the documents that fit a condition on `d` (document); `zone` is the site's, `now` in ms since 1970, UTC. */
export async function lineRows(which: postgres.Fragment, zone: string, now: number): Promise<LineFigures[]> {
	const [today, since] = [dayOf(now, zone), dayOf(now - 29 * dayMs, zone)];
	const rows = await sql()<LineRow[]>`
		select d.id, d.slug, d.title, d.folder, d.topics, coalesce(d.language, e.language) as language, d.description, d.cover, d.cover_alt, d.created_at, d.set_aside_at, e.pages, e.bytes, e.sha256,
			e.facts->'sizes' as sizes, e.number, e.created_at as edition_at, e.condition, e.findings, door_view(d.door_id, ${today}::date) as door,
			(select name from person where id = d.created_by) as created_by_name, (select state from source where document_id = d.id) as source_state,
			(select count(*)::int from placement p where p.document_id = d.id and p.published) as placements,
			(select count(distinct l.page_id)::int from listing l where l.published and ${lists()}) as listed_on,
			exists (select 1 from sum_figures l where l.document_id = d.id and l.span = 'month' and l.openings > 0) as ever,
			coalesce((select jsonb_agg(jsonb_build_object('day', l.day, 'n', l.openings)) from sum_figures l where l.document_id = d.id and l.span = 'day' and l.day >= ${since} and l.openings > 0), '[]') as days
		from document d join edition e on e.id = d.edition_id where ${which}`;
	const readers = await readersOfEach(
		rows.map((row) => row.id),
		{ first: since, last: today }
	);
	return rows.map((row) => ({ ...row, readers: readers.get(row.id) ?? 0 }));
}

/** A row of the list as screens and the API show it; `zone` is the site’s, `now` in ms since 1970, UTC. */
export function toListItem(row: LineFigures, zone: string, now: number): DocumentLine {
	const reach = reachOf(row.door, zone, row.set_aside_at !== null);
	const position = positionNow(reach, now);
	// what is shut stands in no list
	const listedOn = position === 'shut' ? 0 : row.listed_on;
	const byDay = new Map(row.days.map((d) => [d.day, d.n]));
	return {
		id: row.id,
		slug: row.slug,
		title: row.title,
		folder: row.folder,
		topics: row.topics,
		language: row.language,
		pages: row.pages,
		bytes: Number(row.bytes),
		sha256: row.sha256,
		paper: paperWords(row.sizes),
		description: row.description,
		ratio: row.cover === null && row.sizes[0] ? row.sizes[0].height / row.sizes[0].width : null,
		coverAlt: row.cover_alt,
		edition: row.number,
		editionAt: row.edition_at.toISOString(),
		createdAt: row.created_at.toISOString(),
		createdBy: row.created_by_name,
		setAsideAt: row.set_aside_at?.toISOString() ?? null,
		condition: { status: row.condition, findings: row.findings },
		sourceState: row.source_state,
		coverMark: `${row.number}-${coverMark(row.cover)}`,
		door: { position, who: whoWords({ ...reach, position }), sentence: sentence(reach, now, zone), count: row.door.count },
		placements: row.placements,
		listedOn,
		passage: {
			in: row.condition === 'refused' ? 'wrong' : row.condition === 'checking' ? 'to-do' : 'done',
			door: position === 'shut' ? 'to-do' : 'done',
			placed: row.placements || listedOn ? 'done' : 'to-do',
			read: row.ever ? 'done' : 'to-do'
		},
		readers: row.readers,
		days: Array.from({ length: 30 }, (_, i) => byDay.get(dayOf(now - (29 - i) * dayMs, zone)) ?? 0)
	};
}
