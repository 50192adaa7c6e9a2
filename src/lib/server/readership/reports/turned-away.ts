// Whom doors turned away, and where.
import type { Period } from '#core/readership/period';
import { sql } from '../../db/client';
import { noPage, piecesIn } from '../sums/figures';
import { sumsForReport } from '../sums/keep';
import type { Refusals } from '../contract';
import type { Lines, Most } from './report';

/** Who was turned away, why, how often. What came from a page of ours, a dead end, comes first. */
export async function turnedAwayReport(period: Period, most: Most = 300): Promise<Lines<Refusals>> {
	const whole = await sumsForReport();
	const rows = await sql()<(Omit<Refusals, 'last' | 'deadEnd' | 'people'> & { last: Date; people: string[] | null })[]>`
		with groups as (
			select document_id, reason, page_id, sum(times)::int as times, max(last_at) as last from ${piecesIn(period)} join sum_reason using (span, day)
			group by 1, 2, 3 order by page_id = ${noPage}, 4 desc limit ${most}
		)
		select d.slug, d.title, g.reason, p.path as page, p.draft_title as "pageTitle", g.times, w.nameless, g.last,
			(select array_agg(name) from (select distinct n.name from person n where n.id = any(w.people) order by 1 limit ${most === null ? null : 12}) n) as people
		from groups g cross join lateral (
				select count(distinct reader) filter (where person_id is null)::int as nameless, array_agg(distinct person_id) filter (where person_id is not null) as people
				from sum_refused s where s.document_id = g.document_id and s.reason = g.reason and s.page_id = g.page_id and s.day between ${period.first} and ${period.last}) w
			join document d on d.id = g.document_id left join page p on p.id = g.page_id order by g.page_id = ${noPage}, g.times desc, d.title, g.reason`;
	return { period, whole, items: rows.map((r) => ({ ...r, people: r.people ?? [], last: r.last.toISOString(), deadEnd: r.page !== null })) };
}
