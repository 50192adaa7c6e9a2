// Two states of a page beside each other: what was added and taken out, by its words.
import type { PageServerLoad } from './$types';
import { comparePages } from '#core/documents/compare';
import { wholeNumber } from '#core/text/number';
import { contentLines, type PageContent } from '#core/placing/content';
import { staff } from '$lib/server/guard/guard';
import { turnAway } from '$lib/server/http/page';
import { pageDraft, revisionOf, revisionsOf } from '$lib/server/placing/views';

export const load: PageServerLoad = async (event) => {
	staff(event);
	event.depends('ianua:page');
	const { params, url } = event;
	const draft = await pageDraft(params.id).catch(turnAway);
	const revisions = await revisionsOf(draft.id);
	const from = wholeNumber(url.searchParams.get('from'), revisions[0]?.number ?? 0);
	const to = wholeNumber(url.searchParams.get('to'), null);
	const earlier = await revisionOf(draft.id, from).catch(turnAway);
	const later: { title: string; content: PageContent } = to ? await revisionOf(draft.id, to).catch(turnAway) : draft;
	const said = ({ title, content }: { title: string; content: PageContent }) => [title, ...contentLines(draft.layout, content)];
	return { draft: { id: draft.id, title: draft.title }, revisions, from, to, comparison: comparePages(said(earlier), said(later)) };
};
