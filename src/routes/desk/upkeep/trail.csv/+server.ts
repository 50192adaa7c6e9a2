// The entries that a filter shows, as a table to take away.
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';
import { trailTable } from '$lib/server/upkeep/trail';
import { trailQuery } from '$lib/server/upkeep/trail-query';

export const GET: RequestHandler = async ({ url, locals }) => {
	if (locals.caller.who.kind !== 'staff') error(403, { code: 'staff-only', message: 'Only staff may do this.' });
	return new Response(await trailTable(trailQuery(url.searchParams)), {
		headers: {
			'content-type': 'text/csv; charset=utf-8; header=present',
			'content-disposition': 'attachment; filename="trail.csv"',
			'cache-control': 'no-store'
		}
	});
};
