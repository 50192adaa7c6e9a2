// All that is kept of whoever asks, to take away.
import type { RequestHandler } from './$types';
import { member } from '$lib/server/guard/guard';
import { route } from '$lib/server/http/api';
import { ownRecord } from '$lib/server/people/record';

export const GET: RequestHandler = route(async (event) => {
	const { id } = member(event);
	return new Response(JSON.stringify(await ownRecord(id), null, '\t'), {
		headers: { 'content-type': 'application/json', 'content-disposition': 'attachment; filename="my-record.json"', 'cache-control': 'no-store' }
	});
});
