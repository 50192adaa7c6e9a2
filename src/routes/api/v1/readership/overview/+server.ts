// Readership of the whole site over a time.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { route } from '$lib/server/http/api';
import { onlyWhole, periodFrom } from '$lib/server/readership/reports/report';
import { overview } from '$lib/server/readership/reports/overview';
import { reportAnswer, rowsOf } from '$lib/server/readership/reports/table';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const table = event.url.searchParams.get('format') === 'csv';
	const report = onlyWhole(await overview(await periodFrom(event.url), table ? Infinity : 50));
	return reportAnswer(event, report, 'documents', rowsOf.documents(report.documents));
});
