// Readership of one document over a time; of an earlier edition where `edition` names it.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { wholeNumber } from '#core/text/number';
import { documentView } from '$lib/server/documents/view';
import { staff } from '$lib/server/guard/guard';
import { route } from '$lib/server/http/api';
import { reported } from '$lib/server/readership/reported';
import { documentReport } from '$lib/server/readership/reports/document';
import { onlyWhole, periodFrom } from '$lib/server/readership/reports/report';
import { asksForTable, reportAnswer, tables } from '$lib/server/readership/reports/table';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const view = await documentView(event.params.slug);
	if (!view) throw new IanuaError('not-found');
	const edition = wholeNumber(event.url.searchParams.get('edition'), undefined);
	const most = asksForTable(event.url) ? { people: null, sources: null } : undefined;
	const report = onlyWhole(await documentReport(await reported(view, edition), await periodFrom(event.url), most));
	return reportAnswer<'document'>(event, report, {
		days: () => tables.days(report.bars),
		pages: () => tables.pages(report.attention, report.edition.pages),
		people: () => tables.people(report.people),
		sources: () => tables.sources(report.sources),
		// anyone may open it: nobody is called
		roll: () => tables.roll(report.roll ?? [])
	});
});
