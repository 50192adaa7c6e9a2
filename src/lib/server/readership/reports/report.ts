// What all reports are made from: figures and their series over a period, and sources. Every report brings the sums up to date first, so that
// what was entered a moment ago is in it.
import { dayOf, isDay } from '#core/access/hours';
import { IanuaError } from '#core/errors';
import type { Figures } from '#core/readership/counting';
import { addDays, type Added, type DayFigures } from '#core/readership/days';
import { periodOf, series, type Bar, type Days, type Period } from '#core/readership/period';
import type { Piece } from '#core/readership/words';
import { sql } from '../../db/client';
import { theRow } from '../../db/rows';
import { site } from '../../site/site';
import { piecesIn, readersIn } from '../sums/figures';

export interface SourceFigures {
	readonly kind: 'page' | 'desk' | 'outside' | 'direct' | 'news' | 'key';
	readonly name: string;
	readonly openings: number;
	readonly saves: number;
	/** The page, where it is one; of a key, wherever its holder came from, there is one line. */
	readonly page: string | null;
}

/** What all reports have. */
export interface Report {
	readonly period: Period;
	/** False while the sums are made anew: something is missing. */
	readonly whole: boolean;
	readonly answer: readonly Piece[];
	readonly figures: Figures;
	readonly before: Figures;
	readonly bars: readonly Bar[];
}

/** Lines of a report that has no figures of its own. */
export interface Lines<Line> extends Pick<Report, 'period' | 'whole'> {
	readonly items: readonly Line[];
}

/** A report as a program gets it. Throws `figures-not-whole` where something is missing: nobody would look for a mark of that. */
export function onlyWhole<R extends { readonly whole: boolean }>(report: R): R {
	if (!report.whole) throw new IanuaError('figures-not-whole');
	return report;
}

/** The time an address asks for: bounds are days (both included) or instants, which mean the days on which they fall. */
export async function periodFrom(url: URL): Promise<Period> {
	const { zone } = await site();
	const { searchParams: q } = url;
	const day = (name: string) => {
		const given = q.get(name);
		return given && !isDay(given) && !Number.isNaN(Date.parse(given)) ? dayOf(Date.parse(given), zone) : given;
	};
	return periodOf({ days: q.get('days'), from: day('from'), until: day('until'), by: q.get('by') }, dayOf(Date.now(), zone));
}

/** A time as a sentence has it: 'in the last 30 days', 'from 1 to 14 March 2026'. */
export function whenOf(period: Period) {
	const { first, last, length, preset } = period;
	if (preset) return { words: `in the last ${length} days`, length };
	const say = (day: string) =>
		new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' }).format(Date.parse(`${day}T00:00Z`));
	return { words: first === last ? `on ${say(first)}` : `from ${say(first)} to ${say(last)}`, length };
}

/** That a column of instants lies in the days, as the site’s zone has them; in an object, as a query by itself would be awaited and run. */
export async function inside(column: string, { first, last }: Days) {
	const { zone } = await site();
	const s = sql();
	return { within: s`${s(column)} >= (${first}::date)::timestamp at time zone ${zone} and ${s(column)} < (${last}::date + 1)::timestamp at time zone ${zone}` };
}

/** The days of a document, or of the whole site, and those before it, with what they add up to. */
export async function countsOf(document: string, period: Period): Promise<{ figures: Figures; before: Figures; bars: Bar[] } & Omit<Added, 'figures'>> {
	const s = sql();
	const [days, counted] = await Promise.all([
		s<DayFigures[]>`
			select day::text as day, openings, saves, printed, refusals, seconds, staff_openings as "staffOpenings", staff_saves as "staffSaves", hours, devices
			from sum_figures where span = 'day' and document_id = ${document} and day between ${period.before.first} and ${period.last}`,
		s<{ now: number; before: number }[]>`
			select ${readersIn(s`${document}::uuid`, period)} as now, ${readersIn(s`${document}::uuid`, period.before)} as before`
	]);
	const readers = theRow(counted);
	const { figures, ...now } = addDays(days, period);
	return {
		...now,
		figures: { ...figures, readers: readers.now },
		before: { ...addDays(days, period.before).figures, readers: readers.before },
		bars: series(days, period)
	};
}

/** How many lines of a table are wanted at most; null where all of them are, as for a table that is taken away. */
export type Most = number | null;

/** Where the readers of a document came from in those days, the most used first. */
export async function sourcesOf(document: string, days: Days, limit: Most = 8): Promise<SourceFigures[]> {
	return sql()<SourceFigures[]>`
		select case when c.key_id is not null then 'key' else c.kind end as kind, case when c.key_id is not null then coalesce(k.label, 'A key') else coalesce(p.draft_title, c.outside,
				case c.kind when 'direct' then 'Straight to the address' when 'page' then 'A page taken away since' when 'news' then 'News' when 'desk' then 'The desk' else 'Another website' end) end as name,
			case when c.key_id is null then p.path end as page, sum(c.openings)::int as openings, sum(c.saves)::int as saves
		from (select kind, page_id, outside, key_id, sum(openings) as openings, sum(saves) as saves from ${piecesIn(days)} cross join lateral (
				-- offset 0: one after the other by the index, however many rows there seem to be
				select * from sum_source s where s.document_id = ${document} and s.span = pieces.span and s.day = pieces.day and openings + saves > 0 offset 0) s
			group by 1, 2, 3, 4) c
			left join page p on p.id = c.page_id left join door_key k on k.id = c.key_id
		group by 1, 2, 3 order by sum(c.openings + c.saves) desc, 2 limit ${limit}`;
}
