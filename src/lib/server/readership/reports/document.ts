// The report on a document: figures, attention by page, people, the roll call.
import type postgres from 'postgres';
import { dayOf } from '#core/access/hours';
import { isThrough, type Standing } from '#core/readership/counting';
import type { Added } from '#core/readership/days';
import { type Days, type Period } from '#core/readership/period';
import type { ReceiptAsks } from '#core/readership/receipt';
import { readershipOf } from '#core/readership/settings';
import { documentAnswer } from '#core/readership/words';
import { sql } from '../../db/client';
import { receiptAt } from '../../reading/receipts';
import { site } from '../../site/site';
import { piecesIn } from '../sums/figures';
import { sumsForReport } from '../sums/keep';
import { type Most, type SourceFigures, type Report, whenOf, inside, countsOf, sourcesOf } from './report';

/** What a report on a document needs to know of it. */
export interface Reported {
	readonly id: string;
	readonly edition: { readonly id: string; readonly number: number; readonly pages: number };
	/** Whether it is kept for some; else anyone may open it. */
	readonly keyed: boolean;
	/** When it asks its readers for a receipt. */
	readonly receipt: ReceiptAsks | null;
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
	/** Whether they opened this edition, and read it through, whatever they said of it. */
	readonly opened: boolean;
	readonly through: boolean;
	/** When they gave the receipt that the document asks for. */
	readonly receipt: string | null;
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
	/** Those of whom a name is known, the last first; `known` of them there are in all. */
	readonly people: readonly PersonFigures[];
	readonly known: number;
	/** Distinct readers of whom no name is known. */
	readonly nameless: number;
	readonly marks: readonly Mark[];
}

/** Everyone a keyed document admits today, with how they stand to the edition in force; `reads` where a transaction asks. */
export async function rollCall(document: Reported, reads: postgres.ISql = sql()): Promise<RollLine[]> {
	const { zone, readership } = await site();
	const { through } = readershipOf(readership);
	const today = dayOf(Date.now(), zone);
	const rows = await reads<
		(Omit<RollLine, 'standing' | 'through' | 'receipt' | 'last' | 'reminded'> & {
			pages_read: number;
			receipt: Date | null;
			last: Date | null;
			reminded: Date | null;
		})[]
	>`
		with admitted as (
			select a as id from thing_in_force t, lateral door_admits(t.door_id, ${today}::date) a where t.kind = 'document' and t.id = ${document.id}
		), stood as (
			select r.name, bool_or(p.edition_id = ${document.edition.id} and p.openings + p.saves > 0) as opened, bool_or(p.edition_id <> ${document.edition.id} and p.openings + p.saves > 0) as earlier,
				coalesce(max(p.pages_read) filter (where p.edition_id = ${document.edition.id}), 0) as pages_read, max(p.last_at) as last
			from progress p join reader r on r.number = p.reader where p.document_id = ${document.id} and r.name like 'p:%' group by 1
		)
		select p.id, p.name, p.email, coalesce(s.opened, false) as opened, coalesce(s.earlier, false) as earlier, coalesce(s.pages_read, 0)::int as pages_read, s.last,
			${receiptAt(sql()`p.id`, sql()`${document.edition.id}::uuid`)} as receipt,
			(select max(at) from ledger l where l.document_id = ${document.id} and l.kind = 'reminded' and l.person_id = p.id) as reminded,
			coalesce((select jsonb_agg(jsonb_build_object('slug', g.slug, 'name', g.name) order by g.name) from membership m join member_group g on g.id = m.group_id
				where m.person_id = p.id and is_current(m, ${today}::date)), '[]') as groups
		from admitted a join person p on p.id = a.id join document d on d.id = ${document.id} left join stood s on s.name = 'p:' || p.id order by p.name`;
	return rows.map(({ pages_read, receipt, last, reminded, ...row }) => {
		const isRead = row.opened && isThrough(pages_read, document.edition.pages, through);
		return {
			...row,
			through: isRead,
			standing: receipt ? 'receipt' : isRead ? 'through' : row.opened ? 'opened' : 'not-yet',
			receipt: receipt?.toISOString() ?? null,
			last: last?.toISOString() ?? null,
			reminded: reminded?.toISOString() ?? null
		};
	});
}

async function peopleOf(document: Reported, { first, last }: Days, limit: Most): Promise<{ people: PersonFigures[]; known: number; named: number }> {
	// the last day on which they opened or saved it ends with what they did last that day; offset 0: what they did that day is looked up first,
	// which is less than what everybody did with the document
	const cameBy = (who: postgres.Fragment) => sql()`(
		select coalesce(pg.draft_title, l.outside, case l.source_kind when 'desk' then 'The desk' when 'direct' then 'Straight to the address' when 'news' then 'News' end)
		from (select * from ledger where ${who} and at between n.came - interval '25 hours' and n.came offset 0) l left join page pg on pg.id = l.page_id
		where l.document_id = ${document.id} and l.kind in ('opened', 'saved') order by l.at desc limit 1)`;
	const rows = await sql()<(Omit<PersonFigures, 'first' | 'last'> & { first: Date; last: Date; known: number; named: number })[]>`
		with c as (
			select reader, max(person_id::text)::uuid as person_id, max(key_id::text)::uuid as key_id, sum(openings)::int as openings, sum(saves)::int as saves, sum(printed)::int as printed,
				sum(seconds)::float8 as seconds, min(first_at) as first, max(last_at) as last, max(last_at) filter (where openings + saves > 0) as came
			from sum_reader where document_id = ${document.id} and day between ${first} and ${last} and (person_id is not null or key_id is not null) group by 1
		)
		select count(*) over ()::int as known, count(*) filter (where n.openings + n.saves > 0) over ()::int as named, n.person_id as id, coalesce(p.name, k.label, 'Somebody erased since') as name, p.email, n.openings, n.saves, n.printed, n.seconds, n.first, n.last,
			coalesce(g.pages_read, 0)::int as "pagesRead", coalesce(g.furthest, 0)::int as furthest,
			coalesce(case when n.person_id is not null then ${cameBy(sql()`person_id = n.person_id`)} else ${cameBy(sql()`key_id = n.key_id`)} end, '') as from
		from c n left join person p on p.id = n.person_id left join door_key k on k.id = n.key_id
			left join lateral (
				-- offset 0: one by one, not by way of everybody without a name
				select pages_read, furthest from progress where document_id = ${document.id} and edition_id = ${document.edition.id} and reader = n.reader offset 0) g on true
		order by n.last desc, n.reader limit ${limit}`;
	return {
		people: rows.map(({ known: _k, named: _n, ...r }) => ({ ...r, first: r.first.toISOString(), last: r.last.toISOString() })),
		known: rows[0]?.known ?? 0,
		named: rows[0]?.named ?? 0
	};
}

/** Who saved it in a period: those of whom a name is known, those with the most copies first. */
export async function saversOf(document: string, { first, last }: Days): Promise<{ name: string; saves: number }[]> {
	return sql()<{ name: string; saves: number }[]>`
		with c as (
			select max(person_id::text)::uuid as person_id, max(key_id::text)::uuid as key_id, sum(saves)::int as saves
			from sum_reader where document_id = ${document} and day between ${first} and ${last} and saves > 0 and (person_id is not null or key_id is not null) group by reader
		)
		select coalesce(p.name, k.label, 'Somebody erased since') as name, c.saves from c left join person p on p.id = c.person_id left join door_key k on k.id = c.key_id
		order by c.saves desc, name limit 50`;
}

/** How those whom a keyed door admits stand, in numbers. */
const rollOf = (roll: readonly RollLine[], asks: boolean) => ({
	admitted: roll.length,
	opened: roll.filter((r) => r.opened).length,
	through: roll.filter((r) => r.through).length,
	receipts: asks ? roll.filter((r) => r.standing === 'receipt').length : null
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
	return {
		period,
		whole,
		answer: documentAnswer(figures, before, roll && rollOf(roll, document.receipt !== null), whenOf(period), away),
		figures,
		before,
		bars,
		roll,
		staff,
		devices
	};
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

/** One document; at most so many of its people and places, or all. */
export async function documentReport(
	document: Reported,
	period: Period,
	most: { people: Most; sources: Most } = { people: 200, sources: 8 }
): Promise<DocumentReport> {
	const whole = await sumsForReport();
	const [summary, attention, sources, { people, known, named }, marks] = await Promise.all([
		summaryOf(document, period, whole),
		sql()<PageAttention[]>`
			select page, sum(seconds)::float8 as seconds, sum(readers)::int as readers, sum(stops)::int as stops from ${piecesIn(period)} join sum_page using (span, day)
			where document_id = ${document.id} and edition_id = ${document.edition.id} group by 1 order by 1`,
		sourcesOf(document.id, period, most.sources),
		peopleOf(document, period, most.people),
		marksOf(document.id, period)
	]);
	const { number, pages } = document.edition;
	return { ...summary, edition: { number, pages }, attention, sources, people, known, nameless: summary.figures.readers - named, marks };
}
