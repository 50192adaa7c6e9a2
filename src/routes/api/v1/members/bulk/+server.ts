// One change to many members, all or none.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { changeMembers, MembersChange } from '$lib/server/people/members';
import { compile } from '$lib/server/validate';

const checkBody = compile(MembersChange);

export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	return answer(await changeMembers(await body(event, checkBody), actor));
});
