// The entries that a filter shows, as a table to take away.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { trailTable } from '$lib/server/upkeep/trail';
import { trailQuery } from '$lib/server/upkeep/trail-query';

export const GET: RequestHandler = async (event) => {
	staff(event);
	return new Response(await trailTable(trailQuery(event.url.searchParams)), {
		headers: {
			'content-type': 'text/csv; charset=utf-8; header=present',
			'content-disposition': 'attachment; filename="trail.csv"',
			'cache-control': 'no-store'
		}
	});
};
