// The item report of a document collection, by months.
import { itemReport, type ItemReport, type MonthFigures } from '#core/readership/items';
import type { Period } from '#core/readership/period';
import { sql } from '../../db/client';
import { settings } from '../../settings';
import { site } from '../../site/site';
import { piecesIn } from '../sums/figures';
import { sumsForReport } from '../sums/keep';

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
	const header = { site: name, origin: settings().IANUA_ORIGIN, first: period.first, last: period.last, created: new Date().toISOString() };
	return { ...itemReport(rows, header), whole };
}
