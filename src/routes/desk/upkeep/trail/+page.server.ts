// Who changed what.
import type { PageServerLoad } from './$types';
import { staff } from '$lib/server/guard/guard';
import { site } from '$lib/server/site/site';
import { trail, trailActors } from '$lib/server/upkeep/trail';
import { trailQuery } from '$lib/server/upkeep/trail-query';

const pageLength = 50;

export const load: PageServerLoad = async (event) => {
	staff(event);
	const { url } = event;
	const query = trailQuery(url.searchParams);
	const page = Math.max(1, Number(url.searchParams.get('page')) || 1);
	const [{ lines, total }, actors, { zone }] = await Promise.all([
		trail({ ...query, offset: (page - 1) * pageLength, limit: pageLength }),
		trailActors(),
		site()
	]);
	return { lines, total, actors, query, page, pages: Math.max(1, Math.ceil(total / pageLength)), zone };
};
