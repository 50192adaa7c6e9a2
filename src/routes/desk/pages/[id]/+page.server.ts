// The editor of a page, with the documents at hand.
import type { PageServerLoad } from './$types';
import { indexOf } from '#core/placing/content';
import { staff } from '$lib/server/guard/guard';
import { turnAway } from '$lib/server/http/page';
import { labels } from '$lib/server/documents/labels';
import { countAllMembers, listGroups } from '$lib/server/people/directory';
import { mismatches } from '$lib/server/placing/mismatches';
import { frontArticle, pageDraft, revisionsOf } from '$lib/server/placing/views';
import { shelf, shelfOf } from '$lib/server/placing/shelf';
import { settings } from '$lib/server/settings';
import { site } from '$lib/server/site/site';

export const load: PageServerLoad = async (event) => {
	staff(event);
	event.depends('ianua:page');
	const { params, url } = event;
	const draft = await pageDraft(params.id, true).catch(turnAway);
	const place = url.searchParams.get('place');
	const on = indexOf(draft.layout, draft.content).map((p) => p.document);
	const [atHand, placed, groups, allMembers, found, revisions, folders, topics, front, { placing, fields }] = await Promise.all([
		shelf(),
		shelfOf([...new Set([...on, ...(place ? [place] : [])])]),
		listGroups(),
		countAllMembers(),
		mismatches({ page: draft.id, draft: true }),
		revisionsOf(draft.id),
		labels('folder'),
		labels('topic'),
		frontArticle(),
		site()
	]);
	return {
		draft,
		groups,
		allMembers,
		place,
		teaser: url.searchParams.get('teaser'),
		front,
		atHand,
		placed,
		mismatches: found,
		revisions,
		folders,
		topics,
		placing: placing ?? {},
		fields: fields ?? [],
		origin: settings().IANUA_ORIGIN
	};
};
