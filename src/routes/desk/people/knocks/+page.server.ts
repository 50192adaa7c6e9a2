// Knocks to answer.
import type { PageServerLoad } from './$types';
import { staff } from '$lib/server/guard/guard';
import { listKnocks } from '$lib/server/access/knocks';
import { listGroups } from '$lib/server/people/directory';
import { site } from '$lib/server/site/site';

export const load: PageServerLoad = async (event) => {
	staff(event);
	event.depends('ianua:people');
	const [knocks, groups, { zone }] = await Promise.all([listKnocks(), listGroups(), site()]);
	return { knocks, groups: groups.map(({ slug, name }) => ({ slug, name })), zone };
};
