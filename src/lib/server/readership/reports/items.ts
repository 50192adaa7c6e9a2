// The item report of a document collection, by months.
import { itemReport, wholeMonths, type ItemReport, type MonthFigures } from '#core/readership/items';
import type { Period } from '#core/readership/period';
import { sql } from '../../db/client';
import { settings } from '../../settings';
import { site } from '../../site/site';
import { piecesIn } from '../sums/figures';
import { sumsForReport } from '../sums/keep';

/** The item report of the whole months of a time. */
export async function items(given: Period): Promise<ItemReport & { readonly whole: boolean }> {
	const whole = await sumsForReport();
	const period = wholeMonths(given);
	const { name, zone } = await site();
	const rows = await sql()<MonthFigures[]>`
			select d.slug, d.title, to_char(s.day, 'YYYY-MM') as month, access, sum(a.investigations)::int as investigations, sum(a.requests)::int as requests,
				sum(a.unique_investigations)::int as "uniqueInvestigations", sum(a.unique_requests)::int as "uniqueRequests", sum(a.refusals)::int as refusals,
				to_char(d.created_at at time zone ${zone}, 'YYYY') as year
			from ${piecesIn(period)} join sum_figures s using (span, day) join document d on d.id = s.document_id
			cross join lateral (values
				('Controlled', s.controlled_looks + s.controlled, s.controlled, s.controlled_unique_investigations, s.controlled_unique_requests, s.refusals),
				('Free_To_Read', s.looks - s.controlled_looks + s.openings + s.saves - s.controlled, s.openings + s.saves - s.controlled,
					s.unique_investigations - s.controlled_unique_investigations, s.unique_requests - s.controlled_unique_requests, 0)
			) a (access, investigations, requests, unique_investigations, unique_requests, refusals)
			group by d.id, 3, access order by d.title, d.id, access, 3`;
	const header = { site: name, origin: settings().IANUA_ORIGIN, first: period.first, last: period.last, created: new Date().toISOString() };
	return { ...itemReport(rows, header), whole };
}
