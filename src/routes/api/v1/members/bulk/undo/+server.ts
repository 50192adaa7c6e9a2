// Puts members back as a change to many found them.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { MembersUndo, undoMembers } from '$lib/server/people/members';
import { compile } from '$lib/server/validate';

const checkBody = compile(MembersUndo);

export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	await undoMembers(await body(event, checkBody), actor);
	return answer({ ok: true });
});
