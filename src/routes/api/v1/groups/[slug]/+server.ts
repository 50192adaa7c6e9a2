// One group: looked at, changed, taken away.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { changeGroup, GroupChange, removeGroup } from '$lib/server/people/members';
import { groupView } from '$lib/server/people/directory';
import { compile } from '$lib/server/validate';

const checkBody = compile(GroupChange);

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer(await groupView(event.params.slug));
});
export const PATCH: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const before = await changeGroup(event.params.slug, await body(event, checkBody), actor);
	return answer({ ...(await groupView(event.params.slug)), before });
});
export const DELETE: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	await removeGroup(event.params.slug, actor);
	return answer({ ok: true });
});
