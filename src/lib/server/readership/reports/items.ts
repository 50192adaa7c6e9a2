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
			select d.slug, d.title, to_char(s.day, 'YYYY-MM') as month, sum(looks + openings + saves)::int as investigations, sum(openings + saves)::int as requests,
				sum(unique_investigations)::int as "uniqueInvestigations", sum(unique_requests)::int as "uniqueRequests", sum(refusals)::int as refusals, sum(s.controlled)::int as controlled,
				to_char(d.created_at at time zone ${zone}, 'YYYY') as year
			from ${piecesIn(period)} join sum_figures s using (span, day) join document d on d.id = s.document_id group by d.id, 3 order by d.title, 3`;
	const header = { site: name, origin: settings().IANUA_ORIGIN, first: period.first, last: period.last, created: new Date().toISOString() };
	return { ...itemReport(rows, header), whole };
}
