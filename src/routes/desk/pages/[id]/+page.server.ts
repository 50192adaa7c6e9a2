// The editor of a page, with the documents at hand on the shelf.
import type { PageServerLoad } from './$types';
import { turnAway } from '$lib/server/http/page';
import { listDocuments } from '$lib/server/documents/list';
import { countAllMembers, listGroups } from '$lib/server/people/service';
import { pageDraft } from '$lib/server/placing/service';

export const load: PageServerLoad = async ({ params, url }) => {
	const [draft, shelf, groups, allMembers] = await Promise.all([
		pageDraft(params.id).catch(turnAway),
		listDocuments({ limit: 200, order: null }),
		listGroups(),
		countAllMembers()
	]);
	return {
		draft,
		groups,
		allMembers,
		place: url.searchParams.get('place'),
		shelf: shelf.items.map(({ slug, title, pages, bytes, door, edition }) => ({
			slug,
			title,
			pages,
			bytes,
			edition,
			position: door.position,
			who: door.who,
			sentence: door.sentence
		}))
	};
};
