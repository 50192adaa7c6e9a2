// What became of each placement and on each other website.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { route } from '$lib/server/http/api';
import { onlyWhole, periodFrom } from '$lib/server/readership/reports/report';
import { places } from '$lib/server/readership/reports/places';
import { asksForTable, reportAnswer, tables } from '$lib/server/readership/reports/table';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const report = onlyWhole(await places(await periodFrom(event.url), asksForTable(event.url) ? null : undefined));
	return reportAnswer<'places'>(event, report, { places: () => tables.places(report.items) });
});
