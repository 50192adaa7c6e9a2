// Mails a member the address at which they choose their password.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { inviteMember } from '$lib/server/people/members';

export const POST: RequestHandler = route(async (event) => {
	return answer(await inviteMember(event.params.id, staff(event)), 201);
});
