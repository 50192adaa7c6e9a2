// Who was turned away, why, and how often.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { route } from '$lib/server/http/api';
import { onlyWhole, periodFrom } from '$lib/server/readership/reports/report';
import { asksForTable, reportAnswer, tables } from '$lib/server/readership/reports/table';
import { turnedAwayReport } from '$lib/server/readership/reports/turned-away';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const report = onlyWhole(await turnedAwayReport(await periodFrom(event.url), asksForTable(event.url) ? null : undefined));
	return reportAnswer<'turnedAway'>(event, report, { refusals: () => tables.refusals(report.items) });
});
