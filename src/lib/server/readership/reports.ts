// Reports, made from the sums. Every report brings the sums up to date first, so that what was entered a moment ago is in it.
import type postgres from 'postgres';
import { dayOf, isDay } from '#core/access/hours';
import { IanuaError } from '#core/errors';
import { isThrough, noFigures, type Figures, type Standing } from '#core/readership/counting';
import { addDays, type Added, type DayFigures } from '#core/readership/days';
import { itemReport, type ItemReport, type MonthFigures } from '#core/readership/items';
import { periodOf, series, type Bar, type Days, type Period } from '#core/readership/period';
import { readershipOf } from '#core/readership/settings';
import { documentAnswer, memberAnswer, siteAnswer, type Piece } from '#core/readership/words';
import { sql } from '../db/client';
import { settings } from '../settings';
import { site } from '../site/site';
import { noPage, piecesIn, readersIn, readersOfEach, sumsForReport, wholeSite } from './sums';

export interface SourceFigures {
	readonly kind: 'page' | 'desk' | 'outside' | 'direct' | 'key';
	readonly name: string;
	readonly openings: number;
	readonly saves: number;
	/** The page, where it is one. */
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
function whenOf(period: Period) {
	const { first, last, length, preset } = period;
	if (preset) return { words: `in the last ${length} days`, length };
	const say = (day: string) =>
		new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' }).format(Date.parse(`${day}T00:00Z`));
	return { words: first === last ? `on ${say(first)}` : `from ${say(first)} to ${say(last)}`, length };
}

/** That a column of instants lies in the days, as the site’s zone has them; in an object, as a query by itself would be awaited and run. */
async function inside(column: string, { first, last }: Days) {
	const { zone } = await site();
	const s = sql();
	return { within: s`${s(column)} >= (${first}::date)::timestamp at time zone ${zone} and ${s(column)} < (${last}::date + 1)::timestamp at time zone ${zone}` };
}

/** The days of a document, or of the whole site, and those before it, with what they add up to. */
async function countsOf(document: string, period: Period): Promise<{ figures: Figures; before: Figures; bars: Bar[] } & Omit<Added, 'figures'>> {
	const s = sql();
	const [days, [readers]] = await Promise.all([
		s<DayFigures[]>`
			select day::text as day, openings, saves, printed, refusals, seconds, staff_openings as "staffOpenings", staff_saves as "staffSaves", hours, devices
			from sum_figures where span = 'day' and document_id = ${document} and day between ${period.before.first} and ${period.last}`,
		s<{ now: number; before: number }[]>`
			select ${readersIn(s`${document}::uuid`, period)} as now, ${readersIn(s`${document}::uuid`, period.before)} as before`
	]);
	const { figures, ...now } = addDays(days, period);
	return {
		...now,
		figures: { ...figures, readers: readers!.now },
		before: { ...addDays(days, period.before).figures, readers: readers!.before },
		bars: series(days, period)
	};
}

interface SourceRow {
	kind: SourceFigures['kind'];
	name: string | null;
	path: string | null;
	openings: number;
	saves: number;
}

async function sourcesOf(document: string, days: Days, limit = 8): Promise<SourceFigures[]> {
	const rows = await sql()<SourceRow[]>`
		select case when c.key_id is not null then 'key' else c.kind end as kind, coalesce(k.label, p.draft_title, c.outside) as name, p.path, sum(c.openings)::int as openings, sum(c.saves)::int as saves
		from (select kind, page_id, outside, key_id, sum(openings) as openings, sum(saves) as saves from ${piecesIn(days)} cross join lateral (
				-- offset 0: one after the other by the index, however many rows there seem to be
				select * from sum_source s where s.document_id = ${document} and s.span = pieces.span and s.day = pieces.day and openings + saves > 0 offset 0) s
			group by 1, 2, 3, 4) c
			left join page p on p.id = c.page_id left join door_key k on k.id = c.key_id
		group by 1, 2, 3 order by sum(c.openings + c.saves) desc, 2 limit ${limit}`;
	return rows.map(({ path, ...row }) => ({
		...row,
		page: path,
		name:
			row.name ??
			(row.kind === 'direct' ? 'Straight to the address' : row.kind === 'key' ? 'A key' : row.kind === 'page' ? 'A page taken away since' : 'The desk')
	}));
}

export interface DocumentFigures {
	readonly slug: string;
	readonly title: string;
	readonly openings: number;
	readonly saves: number;
	readonly refusals: number;
	readonly seconds: number;
	readonly readers: number;
	/** Openings and saves of the days before. */
	readonly before: number;
}

/** The documents that were opened, saved or refused most, with what they had in the days before. */
async function documentsOf(period: Period, limit: number): Promise<{ items: DocumentFigures[]; opened: number }> {
	const s = sql();
	const rows = await s<(Omit<DocumentFigures, 'readers'> & { id: string })[]>`
		with now as (
			select document_id, sum(openings)::int as openings, sum(saves)::int as saves, sum(refusals)::int as refusals, sum(seconds::float8) as seconds
			from ${piecesIn(period)} join sum_figures using (span, day) where document_id <> ${wholeSite} group by 1
		), earlier as (
			select document_id, sum(openings + saves)::int as n from ${piecesIn(period.before)} join sum_figures using (span, day) where document_id <> ${wholeSite} group by 1
		)
		select d.id, d.slug, d.title, c.* from (
			select coalesce(now.document_id, earlier.document_id) as document_id, coalesce(openings, 0) as openings, coalesce(saves, 0) as saves, coalesce(refusals, 0) as refusals,
				coalesce(seconds, 0) as seconds, coalesce(n, 0) as before
			from now full join earlier on now.document_id = earlier.document_id) c join document d on d.id = c.document_id
		where c.openings + c.saves + c.refusals + c.before > 0 order by c.openings + c.saves desc, c.refusals desc, d.title`;
	const readers = await readersOfEach(
		rows.slice(0, limit).map((r) => r.id),
		period
	);
	return {
		items: rows.map(({ id, slug, title, openings, saves, refusals, seconds, before }) => ({
			...{ slug, title, openings, saves, refusals, seconds, before },
			readers: readers.get(id) ?? 0
		})),
		opened: rows.filter((r) => r.openings > 0).length
	};
}

export interface Overview extends Report, Omit<Added, 'figures'> {
	readonly documents: readonly DocumentFigures[];
	readonly more: number;
	/** What rose and what fell most against the days before, openings and saves together. */
	readonly rose: readonly DocumentFigures[];
	readonly fell: readonly DocumentFigures[];
	readonly sources: readonly SourceFigures[];
}

/** The whole site. At most `limit` documents are listed. */
export async function overview(period: Period, limit = 25): Promise<Overview> {
	const whole = await sumsForReport();
	const [counts, { items, opened }, sources] = await Promise.all([countsOf(wholeSite, period), documentsOf(period, limit), sourcesOf(wholeSite, period)]);
	const change = (d: DocumentFigures) => d.openings + d.saves - d.before;
	const moved = [...items].sort((a, b) => change(b) - change(a));
	return {
		period,
		whole,
		answer: siteAnswer(counts.figures, counts.before, opened, whenOf(period)),
		...counts,
		documents: items.slice(0, limit),
		more: Math.max(0, items.length - limit),
		rose: moved.filter((d) => change(d) > 0).slice(0, 4),
		fell: moved
			.filter((d) => change(d) < 0)
			.slice(-4)
			.reverse(),
		sources
	};
}

/** What a report on a document needs to know of it. */
export interface Reported {
	readonly id: string;
	readonly edition: { readonly id: string; readonly number: number; readonly pages: number };
	/** Whether it is kept for some; else anyone may open it. */
	readonly keyed: boolean;
}

export interface PageAttention {
	readonly page: number;
	readonly seconds: number;
	/** Readers and days with at least 2 s on it. */
	readonly readers: number;
	/** How often somebody went no further than this page on a day. */
	readonly stops: number;
}

export interface PersonFigures {
	readonly id: string | null;
	readonly name: string;
	readonly email: string | null;
	readonly openings: number;
	readonly saves: number;
	readonly printed: number;
	readonly seconds: number;
	/** Pages of the edition in force with at least 2 s, and the furthest of them, ever. */
	readonly pagesRead: number;
	readonly furthest: number;
	readonly first: string;
	readonly last: string;
	readonly from: string;
}

export interface RollLine {
	readonly id: string;
	readonly name: string;
	readonly email: string;
	readonly standing: Standing;
	/** Opened an earlier edition but not the one in force. */
	readonly earlier: boolean;
	readonly last: string | null;
	readonly reminded: string | null;
	readonly groups: readonly { readonly slug: string; readonly name: string }[];
}

export interface Mark {
	readonly day: string;
	readonly kind: 'edition' | 'reminder';
	readonly words: string;
}

/** The figures of a document; `roll` is null where anyone may open it. */
export interface Summary extends Report {
	readonly roll: readonly RollLine[] | null;
	readonly staff: Added['staff'];
	readonly devices: Added['devices'];
}

export interface DocumentReport extends Summary {
	readonly edition: { readonly number: number; readonly pages: number };
	readonly attention: readonly PageAttention[];
	readonly sources: readonly SourceFigures[];
	readonly people: readonly PersonFigures[];
	/** Distinct readers of whom no name is known. */
	readonly nameless: number;
	readonly marks: readonly Mark[];
}

/** Everyone a keyed document admits today, with how they stand to the edition in force. */
export async function rollCall(document: Reported): Promise<RollLine[]> {
	const { zone, readership } = await site();
	const { through } = readershipOf(readership);
	const today = dayOf(Date.now(), zone);
	const rows = await sql()<
		(Omit<RollLine, 'standing' | 'last' | 'reminded'> & { opened: boolean; pages_read: number; last: Date | null; reminded: Date | null })[]
	>`
		with admitted as (
			select a as id from thing_in_force t, lateral door_admits(t.door_id, ${today}::date) a where t.kind = 'document' and t.id = ${document.id}
		), stood as (
			select r.name, bool_or(p.edition_id = ${document.edition.id} and p.openings + p.saves > 0) as opened, bool_or(p.edition_id <> ${document.edition.id} and p.openings + p.saves > 0) as earlier,
				coalesce(max(p.pages_read) filter (where p.edition_id = ${document.edition.id}), 0) as pages_read, max(p.last_at) as last
			from progress p join reader r on r.number = p.reader where p.document_id = ${document.id} and r.name like 'p:%' group by 1
		)
		select p.id, p.name, p.email, coalesce(s.opened, false) as opened, coalesce(s.earlier, false) as earlier, coalesce(s.pages_read, 0)::int as pages_read, s.last,
			(select max(at) from ledger l where l.document_id = ${document.id} and l.kind = 'reminded' and l.person_id = p.id) as reminded,
			coalesce((select jsonb_agg(jsonb_build_object('slug', g.slug, 'name', g.name) order by g.name) from membership m join member_group g on g.id = m.group_id
				where m.person_id = p.id and is_current(m, ${today}::date)), '[]') as groups
		from admitted a join person p on p.id = a.id left join stood s on s.name = 'p:' || p.id order by p.name`;
	return rows.map(({ opened, pages_read, last, reminded, ...row }) => ({
		...row,
		standing: opened ? (isThrough(pages_read, document.edition.pages, through) ? 'through' : 'opened') : 'not-yet',
		last: last?.toISOString() ?? null,
		reminded: reminded?.toISOString() ?? null
	}));
}

async function peopleOf(document: Reported, { first, last }: Days): Promise<{ people: PersonFigures[]; named: number }> {
	// the last day on which they opened or saved it ends with what they did last that day; offset 0: what they did that day is looked up first,
	// which is less than what everybody did with the document
	const cameBy = (who: postgres.Fragment) => sql()`(
		select coalesce(pg.draft_title, l.outside, case l.source_kind when 'desk' then 'The desk' when 'direct' then 'Straight to the address' end)
		from (select * from ledger where ${who} and at between n.came - interval '25 hours' and n.came offset 0) l left join page pg on pg.id = l.page_id
		where l.document_id = ${document.id} and l.kind in ('opened', 'saved') order by l.at desc limit 1)`;
	const rows = await sql()<(Omit<PersonFigures, 'first' | 'last'> & { first: Date; last: Date; named: number })[]>`
		with c as (
			select reader, max(person_id::text)::uuid as person_id, max(key_id::text)::uuid as key_id, sum(openings)::int as openings, sum(saves)::int as saves, sum(printed)::int as printed,
				sum(seconds)::float8 as seconds, min(first_at) as first, max(last_at) as last, max(last_at) filter (where openings + saves > 0) as came
			from sum_reader where document_id = ${document.id} and day between ${first} and ${last} and (person_id is not null or key_id is not null) group by 1
		)
		select count(*) filter (where n.openings + n.saves > 0) over ()::int as named, n.person_id as id, coalesce(p.name, k.label, 'Somebody erased since') as name, p.email, n.openings, n.saves, n.printed, n.seconds, n.first, n.last,
			coalesce(g.pages_read, 0)::int as "pagesRead", coalesce(g.furthest, 0)::int as furthest,
			coalesce(case when n.person_id is not null then ${cameBy(sql()`person_id = n.person_id`)} else ${cameBy(sql()`key_id = n.key_id`)} end, '') as from
		from c n left join person p on p.id = n.person_id left join door_key k on k.id = n.key_id
			left join lateral (
				-- offset 0: one by one, not by way of everybody without a name
				select pages_read, furthest from progress where document_id = ${document.id} and edition_id = ${document.edition.id} and reader = n.reader offset 0) g on true
		order by n.last desc limit 200`;
	return {
		people: rows.map(({ named: _, ...r }) => ({ ...r, first: r.first.toISOString(), last: r.last.toISOString() })),
		named: rows[0]?.named ?? 0
	};
}

/** How those whom a keyed door admits stand, in numbers. */
const rollOf = (roll: readonly RollLine[]) => ({
	admitted: roll.length,
	opened: roll.filter((r) => r.standing !== 'not-yet').length,
	through: roll.filter((r) => r.standing === 'through').length
});

/** Where most of those who were turned away came from. */
async function turnedAwayAt(document: string, period: Period): Promise<string | null> {
	const [row] = await sql()<{ name: string | null }[]>`
		select p.draft_title as name from ${piecesIn(period)} join sum_reason s using (span, day) left join page p on p.id = s.page_id where s.document_id = ${document}
		group by 1 order by sum(s.times) desc, 1 limit 1`;
	return row?.name ?? null;
}

/** The figures of a document alone, as its sheet shows them. */
export async function documentSummary(document: Reported, period: Period): Promise<Summary> {
	return summaryOf(document, period, await sumsForReport());
}

async function summaryOf(document: Reported, period: Period, whole: boolean): Promise<Summary> {
	const [{ figures, before, bars, staff, devices }, roll, away] = await Promise.all([
		countsOf(document.id, period),
		document.keyed ? rollCall(document) : null,
		turnedAwayAt(document.id, period)
	]);
	return { period, whole, answer: documentAnswer(figures, before, roll && rollOf(roll), whenOf(period), away), figures, before, bars, roll, staff, devices };
}

/** New editions and mailings, to be marked on the days they happened. */
async function marksOf(document: string, period: Period): Promise<Mark[]> {
	const { zone } = await site();
	const [edition, reminder] = await Promise.all([inside('created_at', period), inside('at', period)]);
	return sql()<Mark[]>`
		select to_char(created_at at time zone ${zone}, 'YYYY-MM-DD') as day, 'edition' as kind, 'Edition ' || number as words from edition
			where document_id = ${document} and number > 1 and ${edition.within}
		union all select to_char(at at time zone ${zone}, 'YYYY-MM-DD'), 'reminder', count(*) || case when count(*) = 1 then ' reminder mailed' else ' reminders mailed' end
			from ledger where document_id = ${document} and kind = 'reminded' and ${reminder.within} group by 1
		order by 1`;
}

/** One document. */
export async function documentReport(document: Reported, period: Period): Promise<DocumentReport> {
	const whole = await sumsForReport();
	const [summary, attention, sources, { people, named }, marks] = await Promise.all([
		summaryOf(document, period, whole),
		sql()<PageAttention[]>`
			select page, sum(seconds)::float8 as seconds, sum(readers)::int as readers, sum(stops)::int as stops from ${piecesIn(period)} join sum_page using (span, day)
			where document_id = ${document.id} and edition_id = ${document.edition.id} group by 1 order by 1`,
		sourcesOf(document.id, period),
		peopleOf(document, period),
		marksOf(document.id, period)
	]);
	const { number, pages } = document.edition;
	return { ...summary, edition: { number, pages }, attention, sources, people, nameless: summary.figures.readers - named, marks };
}

export interface ReadDocument {
	readonly slug: string;
	readonly title: string;
	readonly openings: number;
	readonly saves: number;
	readonly printed: number;
	readonly seconds: number;
	readonly pagesRead: number;
	readonly pages: number;
	readonly first: string;
	readonly last: string;
}

export interface OneReader extends Omit<Report, 'before'> {
	readonly name: string;
	readonly documents: readonly ReadDocument[];
}

/** What one member did, or what was done with one key. Null where there is no such. */
export async function readerReport(of: { readonly person: string } | { readonly key: string }, period: Period): Promise<OneReader | null> {
	const whole = await sumsForReport();
	const s = sql();
	const person = 'person' in of ? of.person : null;
	const key = 'key' in of ? of.key : null;
	const [known] = person
		? await s<{ name: string }[]>`select name from person where id = ${person}`
		: await s<{ name: string }[]>`select label as name from door_key where id = ${key}`;
	if (!known) return null;
	const own = person ? s`person_id = ${person}` : s`key_id = ${key}`;
	// what they did is looked at once, and added up both by document and by day
	const [both, [refused]] = await Promise.all([
		s<(Omit<ReadDocument, 'first' | 'last'> & { day: string | null; first: Date; last: Date })[]>`
			with own as (select * from sum_reader where ${own} and day between ${period.before.first} and ${period.last}),
				c as (
					select document_id, array_agg(distinct reader) as readers, sum(openings)::int as openings, sum(saves)::int as saves, sum(printed)::int as printed, sum(seconds)::float8 as seconds,
						min(first_at) as first, max(last_at) as last from own where day >= ${period.first} group by 1
				)
			select null as day, d.slug, d.title, c.openings, c.saves, c.printed, c.seconds, e.pages, c.first, c.last,
				coalesce((select max(p.pages_read) from progress p where p.document_id = d.id and p.edition_id = e.id and p.reader = any(c.readers)), 0)::int as "pagesRead"
			from c join document d on d.id = c.document_id join edition e on e.id = d.edition_id
			union all select day::text, null, null, sum(openings)::int, sum(saves)::int, null, null, null, null, null, null from own group by day
			order by last desc nulls last`,
		s<{ n: number }[]>`select coalesce(sum(times), 0)::int as n from sum_refused where ${own} and day between ${period.first} and ${period.last}`
	]);
	const days = both.flatMap(({ day, openings, saves }) => (day ? [{ day, openings, saves }] : []));
	const rows = both.flatMap(({ day, ...row }) => (day ? [] : [row]));
	const total = (key: 'openings' | 'saves' | 'printed' | 'seconds') => rows.reduce((sum, r) => sum + r[key], 0);
	const figures: Figures = {
		...noFigures,
		openings: total('openings'),
		saves: total('saves'),
		printed: total('printed'),
		seconds: total('seconds'),
		refusals: refused!.n,
		readers: rows.length ? 1 : 0
	};
	return {
		period,
		whole,
		name: known.name,
		answer: memberAnswer(known.name, figures, rows.length, whenOf(period)),
		figures,
		bars: series(days, period),
		documents: rows.map((r) => ({ ...r, first: r.first.toISOString(), last: r.last.toISOString() }))
	};
}

export interface PlaceFigures {
	readonly kind: 'placement' | 'outside';
	/** The page's path, or the other website. */
	readonly where: string;
	readonly title: string;
	readonly slug: string;
	readonly document: string;
	readonly form: string | null;
	readonly shown: number;
	/** Led to the document's page, an opening or a save: whichever was most, as one press can be followed by all of them. */
	readonly pressed: number;
	readonly openings: number;
	readonly saves: number;
}

/** What became of each placement and on each other website: shown → pressed → opened → saved. */
export async function places(period: Period): Promise<Lines<PlaceFigures>> {
	const whole = await sumsForReport();
	const items = await sql()<PlaceFigures[]>`
		select case when c.outside is not null then 'outside' else 'placement' end as kind, coalesce(p.path, c.outside) as "where", coalesce(p.draft_title, c.outside) as title, d.slug, d.title as document,
			(select form from placement pl where pl.id = c.placement_id limit 1) as form, c.shown, greatest(c.looks, c.openings, c.saves) as pressed, c.openings, c.saves
		from (select page_id, placement_id, outside, document_id, sum(shown)::int as shown, sum(looks)::int as looks, sum(openings)::int as openings, sum(saves)::int as saves
			from ${piecesIn(period)} cross join lateral (
				-- offset 0: one after the other by the index, however many rows there seem to be
				select * from sum_source s where s.span = pieces.span and s.day = pieces.day and (page_id is not null or outside is not null) and document_id <> ${wholeSite} offset 0) s
			group by 1, 2, 3, 4) c
			join document d on d.id = c.document_id left join page p on p.id = c.page_id
		where p.id is not null or c.outside is not null order by c.shown + c.looks + c.openings + c.saves desc limit 300`;
	return { period, whole, items };
}

export interface Refusals {
	readonly slug: string;
	readonly title: string;
	readonly reason: string;
	/** The page from which they came, where it was one. */
	readonly page: string | null;
	readonly pageTitle: string | null;
	readonly times: number;
	readonly people: readonly string[];
	readonly nameless: number;
	readonly last: string;
	/** The page shows the document to people who cannot open it. */
	readonly deadEnd: boolean;
}

/** Who was turned away, why, how often. What came from a page of ours, a dead end, comes first. */
export async function turnedAwayReport(period: Period): Promise<Lines<Refusals>> {
	const whole = await sumsForReport();
	const rows = await sql()<(Omit<Refusals, 'last' | 'deadEnd'> & { last: Date })[]>`
		with groups as (
			select document_id, reason, page_id, sum(times)::int as times, max(last_at) as last from ${piecesIn(period)} join sum_reason using (span, day)
			group by 1, 2, 3 order by page_id = ${noPage}, 4 desc limit 300
		)
		select d.slug, d.title, g.reason, p.path as page, p.draft_title as "pageTitle", g.times, w.nameless, g.last,
			(select array_agg(name) from (select distinct n.name from person n where n.id = any(w.people) order by 1 limit 12) n) as people
		from groups g cross join lateral (
				select count(distinct reader) filter (where person_id is null)::int as nameless, array_agg(distinct person_id) filter (where person_id is not null) as people
				from sum_refused s where s.document_id = g.document_id and s.reason = g.reason and s.page_id = g.page_id and s.day between ${period.first} and ${period.last}) w
			join document d on d.id = g.document_id left join page p on p.id = g.page_id order by g.page_id = ${noPage}, g.times desc, d.title, g.reason`;
	return { period, whole, items: rows.map((r) => ({ ...r, people: r.people ?? [], last: r.last.toISOString(), deadEnd: r.page !== null })) };
}

/** The item report of a time. */
export async function items(period: Period): Promise<ItemReport & { readonly whole: boolean }> {
	const whole = await sumsForReport();
	const [rows, { name }] = await Promise.all([
		sql()<MonthFigures[]>`
			select d.slug, d.title, to_char(s.day, 'YYYY-MM') as month, sum(looks + openings + saves)::int as investigations, sum(openings + saves)::int as requests,
				sum(unique_investigations)::int as "uniqueInvestigations", sum(unique_requests)::int as "uniqueRequests", sum(refusals)::int as refusals
			from ${piecesIn(period)} join sum_figures s using (span, day) join document d on d.id = s.document_id group by d.id, 3 order by d.title, 3`,
		site()
	]);
	const of = { site: name, origin: settings().IANUA_ORIGIN, first: period.first, last: period.last, created: new Date().toISOString() };
	return { ...itemReport(rows, of), whole };
}
