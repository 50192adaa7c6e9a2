// What became of each placement and on each other website.
import type { PageServerLoad } from './$types';
import { periodFrom, places } from '$lib/server/readership/reports';

export const load: PageServerLoad = async ({ url }) => {
	return { report: await places(await periodFrom(url)) };
};
