// Who was turned away, why, and how often.
import type { RequestHandler } from './$types';
import { answer, route, staff } from '$lib/server/http/api';
import { periodFrom, turnedAwayReport } from '$lib/server/readership/reports';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const period = await periodFrom(event.url);
	return answer({ period, items: await turnedAwayReport(period) });
});
