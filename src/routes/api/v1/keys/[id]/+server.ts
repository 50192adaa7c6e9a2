// Withdraws a key.
import type { RequestHandler } from './$types';
import { withdrawKey } from '$lib/server/access/keys';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';

export const DELETE: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	await withdrawKey(event.params.id, id);
	return answer({ ok: true });
});
