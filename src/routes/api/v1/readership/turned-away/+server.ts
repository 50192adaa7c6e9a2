// Who was turned away, why, and how often.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { onlyWhole, periodFrom } from '$lib/server/readership/reports/report';
import { turnedAwayReport } from '$lib/server/readership/reports/turned-away';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer(onlyWhole(await turnedAwayReport(await periodFrom(event.url))));
});
