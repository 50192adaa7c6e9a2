// What became of each placement and on each other website.
import type { PageServerLoad } from './$types';
import { staff } from '$lib/server/guard/guard';
import { periodFrom } from '$lib/server/readership/reports/report';
import { places } from '$lib/server/readership/reports/places';

export const load: PageServerLoad = async (event) => {
	staff(event);
	event.depends('ianua:readership');
	const { url } = event;
	return { report: await places(await periodFrom(url)) };
};
