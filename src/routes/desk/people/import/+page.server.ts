// The groups that a table of members can name.
import type { PageServerLoad } from './$types';
import { staff } from '$lib/server/guard/guard';
import { listGroups } from '$lib/server/people/directory';

export const load: PageServerLoad = async (event) => {
	staff(event);
	event.depends('ianua:people');
	return { groups: (await listGroups()).map(({ slug, name }) => ({ slug, name })) };
};
