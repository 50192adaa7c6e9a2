// The draft as somebody would see it once published: a visitor, a member of a group, or staff.
import type { PageServerLoad } from './$types';
import { decide, visitor, type Who } from '#core/access/decide';
import { always } from '#core/access/hours';
import { turnAway } from '$lib/server/http/page';
import { listGroups } from '$lib/server/people/service';
import { doorThing, navigationFor, pageDraft, previewOf } from '$lib/server/placing/service';

/** Stands for a member who is in one group and nobody in particular: no door admits it by name. */
const nobodyInParticular = '00000000-0000-0000-0000-000000000000';

export const load: PageServerLoad = async ({ params, url, locals }) => {
	const as = url.searchParams.get('as') ?? 'visitor';
	const [draft, groups] = await Promise.all([pageDraft(params.id).catch(turnAway), listGroups()]);
	const group = groups.find((g) => as === `group:${g.slug}`);
	const who: Who = group
		? { kind: 'member', id: nobodyInParticular, suspended: false, memberships: [{ group: group.id, span: always }] }
		: as === 'staff'
			? locals.caller.who
			: visitor;
	const caller = { who, person: null };
	const decision = decide(who, await doorThing(draft.id), 'read', Date.now());
	return {
		draft: { id: draft.id, title: draft.title, path: draft.path },
		as,
		groups: groups.map(({ slug, name }) => ({ slug, name })),
		page: decision.allowed ? await previewOf(draft, caller) : null,
		refusedFor: decision.reasons[0].code,
		navigation: await navigationFor(caller)
	};
};
