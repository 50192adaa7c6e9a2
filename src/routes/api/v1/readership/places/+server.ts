// What became of each placement and on each other website.
import type { RequestHandler } from './$types';
import { answer, route, staff } from '$lib/server/http/api';
import { periodFrom, places } from '$lib/server/readership/reports';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const period = await periodFrom(event.url);
	return answer({ period, items: await places(period) });
});
