// The draft as somebody would see it once published: a visitor, a member of a group, a given person, or staff.
import type { PageServerLoad } from './$types';
import { decide } from '#core/access/decide';
import { wholeNumber } from '#core/text/number';
import { IanuaError } from '#core/errors';
import { staff } from '$lib/server/guard/guard';
import { turnAway } from '$lib/server/http/page';
import { listGroups } from '$lib/server/people/directory';
import { listQueryOf } from '$lib/server/placing/catalogue';
import { previewer } from '$lib/server/placing/preview';
import { previewOf } from '$lib/server/placing/page-view';
import { frontArticle, guardedPage, listPages, navigationFor, pageDraft, revisionOf } from '$lib/server/placing/views';

export const load: PageServerLoad = async (event) => {
	staff(event);
	event.depends('ianua:page');
	const { params, url, locals } = event;
	const as = url.searchParams.get('as') ?? 'visitor';
	const [draft, groups, pages] = await Promise.all([pageDraft(params.id).catch(turnAway), listGroups(), listPages()]);
	let trouble = '';
	const caller = await previewer(as, locals.caller).catch((error: unknown) => {
		if (!(error instanceof IanuaError)) throw error;
		trouble = error.message;
		return previewer('visitor', locals.caller);
	});
	const decision = decide(caller.who, await guardedPage(draft.id), 'read', Date.now());
	// an earlier revision in the draft's place
	const number = wholeNumber(url.searchParams.get('revision'), null);
	const { title, content } = number ? await revisionOf(draft.id, number).catch(turnAway) : draft;
	const { searchParams } = url;
	return {
		draft: { id: draft.id, title, path: draft.path },
		front: (await frontArticle()) === draft.id,
		revision: number,
		as,
		trouble,
		/** By their paths: a press on one leads to its draft. */
		pages: Object.fromEntries(pages.map(({ id, path }) => [path, id])),
		groups: groups.map(({ slug, name }) => ({ slug, name })),
		page: decision.allowed ? await previewOf({ ...draft, title }, caller, listQueryOf(searchParams, draft.language ?? locals.language), content) : null,
		reading: searchParams.get('read'),
		query: searchParams.toString(),
		refusedFor: decision.reasons[0].code,
		navigation: await navigationFor(caller)
	};
};
