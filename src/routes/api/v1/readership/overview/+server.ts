// Readership of the whole site over a time.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { route } from '$lib/server/http/api';
import { onlyWhole, periodFrom } from '$lib/server/readership/reports/report';
import { overview } from '$lib/server/readership/reports/overview';
import { asksForTable, reportAnswer, tables } from '$lib/server/readership/reports/table';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const most = asksForTable(event.url) ? { documents: null, sources: null } : { documents: 50, sources: 8 };
	const report = onlyWhole(await overview(await periodFrom(event.url), most));
	return reportAnswer<'overview'>(event, report, {
		documents: () => tables.documents(report.documents),
		days: () => tables.days(report.bars),
		hours: () => tables.hours(report.week),
		sources: () => tables.sources(report.sources)
	});
});
