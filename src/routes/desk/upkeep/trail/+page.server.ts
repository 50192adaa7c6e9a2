// Who changed what.
import type { PageServerLoad } from './$types';
import { wholeNumber } from '#core/text/number';
import { staff } from '$lib/server/guard/guard';
import { site } from '$lib/server/site/site';
import { trail, trailActors } from '$lib/server/upkeep/trail';
import { trailQuery } from '$lib/server/upkeep/trail-query';

const pageLength = 50;

export const load: PageServerLoad = async (event) => {
	staff(event);
	event.depends('ianua:upkeep');
	const { url } = event;
	const query = trailQuery(url.searchParams);
	const page = wholeNumber(url.searchParams.get('page'), 1, { most: 1_000_000 });
	const [{ lines, total }, actors, { zone }] = await Promise.all([
		trail({ ...query, offset: (page - 1) * pageLength, limit: pageLength }),
		trailActors(),
		site()
	]);
	return { lines, total, actors, query, page, pageLength, zone };
};
