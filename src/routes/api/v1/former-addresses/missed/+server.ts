// What was asked for and is not here.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { missedAddresses } from '$lib/server/placing/former';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer({ items: await missedAddresses(), next: null });
});
