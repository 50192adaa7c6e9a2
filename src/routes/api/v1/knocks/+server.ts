// Knocks: those that wait for an answer first.
import type { RequestHandler } from './$types';
import { listKnocks } from '$lib/server/access/knocks';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer({ items: await listKnocks(), next: null });
});
