// One token for programs.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { withdrawToken } from '$lib/server/people/tokens';

export const DELETE: RequestHandler = route(async (event) => {
	await withdrawToken(staff(event).id, event.params.id);
	return answer({ ok: true });
});
