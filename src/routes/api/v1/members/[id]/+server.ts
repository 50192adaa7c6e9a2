// One member: looked at, changed, taken out.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { changeMember, MemberChange, memberView, removeMember } from '$lib/server/people/members';
import { compile } from '$lib/server/validate';

const checkBody = compile(MemberChange);

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer(await memberView(event.params.id));
});
export const PATCH: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const before = await changeMember(event.params.id, await body(event, checkBody), actor);
	return answer({ ...(await memberView(event.params.id)), before });
});
export const DELETE: RequestHandler = route(async (event) => {
	await removeMember(event.params.id, staff(event).id);
	return answer({ ok: true });
});
