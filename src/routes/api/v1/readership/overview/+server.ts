// Readership of the whole site over a time.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { onlyWhole, periodFrom } from '$lib/server/readership/reports/report';
import { overview } from '$lib/server/readership/reports/overview';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer(onlyWhole(await overview(await periodFrom(event.url), 50)));
});
