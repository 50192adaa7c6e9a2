// The reading room: in the whole window, in a frame on a page of the site, or over the page.
import type { PageServerLoad } from './$types';
import { roomFrame } from '#core/reading/room';
import { enterRoom } from '$lib/server/reading/room';

export const load: PageServerLoad = async (event) => {
	const { searchParams } = event.url;
	const kind = searchParams.has('over') ? 'over' : searchParams.has('frame') ? 'page' : null;
	return {
		...(await enterRoom(event, event.params.slug, searchParams.get('from'))),
		frame: kind && roomFrame(kind, (name) => searchParams.get(name))
	};
};
