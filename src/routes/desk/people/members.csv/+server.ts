// All members with their memberships, as a table to take away (RFC 4180).
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';
import { membersTable } from '$lib/server/people/table';

export const GET: RequestHandler = async ({ locals }) => {
	if (locals.caller.who.kind !== 'staff') error(403, { code: 'staff-only', message: 'Only staff may do this.' });
	return new Response(await membersTable(), {
		headers: {
			'content-type': 'text/csv; charset=utf-8; header=present',
			'content-disposition': 'attachment; filename="members.csv"',
			'cache-control': 'no-store'
		}
	});
};
