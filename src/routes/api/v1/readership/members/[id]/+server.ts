// What one member read over a time.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { staff } from '$lib/server/guard/guard';
import { route } from '$lib/server/http/api';
import { isId } from '$lib/server/id';
import { onlyWhole, periodFrom } from '$lib/server/readership/reports/report';
import { readerReport } from '$lib/server/readership/reports/reader';
import { reportAnswer, tables } from '$lib/server/readership/reports/table';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const { id } = event.params;
	const report = isId(id) ? await readerReport({ person: id }, await periodFrom(event.url)) : null;
	if (!report) throw new IanuaError('not-found');
	return reportAnswer<'reader'>(event, onlyWhole(report), { read: () => tables.read(report.documents), days: () => tables.days(report.bars) });
});
