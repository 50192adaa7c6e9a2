// One token for programs.
import type { RequestHandler } from './$types';
import { answer, route, staff } from '$lib/server/http/api';
import { withdrawToken } from '$lib/server/people/tokens';

export const DELETE: RequestHandler = route(async (event) => {
	await withdrawToken(staff(event).id, event.params.id!);
	return answer({ ok: true });
});
