// The reading room: in the whole window, in a frame on a page of the site, or over the page.
import type { PageServerLoad } from './$types';
import { enterRoom } from '$lib/server/reading/room';

export const load: PageServerLoad = async (event) => {
	const { searchParams } = event.url;
	const place = searchParams.has('over') ? 'over' : searchParams.has('frame') ? 'page' : 'window';
	return { room: await enterRoom(event, event.params.slug, place, searchParams.get('from')) };
};
