// What became of each placement and on each other website.
import type { PageServerLoad } from './$types';
import { periodFrom, places } from '$lib/server/readership/reports';

export const load: PageServerLoad = async ({ url }) => {
	const period = await periodFrom(url);
	return { period, places: await places(period) };
};
