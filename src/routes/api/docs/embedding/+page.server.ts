// What the examples show: the document that changed last of those that are open to everyone.
import type { PageServerLoad } from './$types';
import { openList } from '$lib/server/placing/open-list';
import { settings } from '$lib/server/settings';

export const load: PageServerLoad = async ({ locals }) => {
	const {
		items: [item]
	} = await openList(new URLSearchParams({ order: '-changed', most: '1' }), locals.language);
	const origin = settings().IANUA_ORIGIN;
	return { origin, document: item ? { src: `${origin}/d/${item.slug}`, title: item.title } : null };
};
