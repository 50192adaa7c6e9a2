// Mails a member the address at which they choose their password.
import type { RequestHandler } from './$types';
import { answer, route, staff } from '$lib/server/http/api';
import { inviteMember } from '$lib/server/people/members';

export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	return answer(await inviteMember(event.params.id!, actor), 201);
});
