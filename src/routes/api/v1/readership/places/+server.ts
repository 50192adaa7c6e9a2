// What became of each placement and on each other website.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { onlyWhole, periodFrom } from '$lib/server/readership/reports/report';
import { places } from '$lib/server/readership/reports/places';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer(onlyWhole(await places(await periodFrom(event.url))));
});
