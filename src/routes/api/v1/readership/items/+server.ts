// The item report over a time, as COUNTER lays it out: JSON, or with format=tsv a table.
import type { RequestHandler } from './$types';
import { itemJson, itemTable } from '#core/readership/items';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { items } from '$lib/server/readership/reports/items';
import { onlyWhole, periodFrom } from '$lib/server/readership/reports/report';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const { whole: _, ...report } = onlyWhole(await items(await periodFrom(event.url)));
	if (event.url.searchParams.get('format') !== 'tsv') return answer(itemJson(report));
	return new Response(itemTable(report), {
		headers: {
			'content-type': 'text/tab-separated-values; charset=utf-8',
			'content-disposition': 'attachment; filename="item-report.tsv"',
			'cache-control': 'no-store'
		}
	});
});
