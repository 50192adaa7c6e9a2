// All members with their memberships, as a table to take away (RFC 4180).
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { membersTable } from '$lib/server/people/table';

export const GET: RequestHandler = async (event) => {
	staff(event);
	return new Response(await membersTable(), {
		headers: {
			'content-type': 'text/csv; charset=utf-8; header=present',
			'content-disposition': 'attachment; filename="members.csv"',
			'cache-control': 'no-store'
		}
	});
};
