// Withdraws a key.
import type { RequestHandler } from './$types';
import { setWithdrawn } from '$lib/server/access/key-list';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';

export const DELETE: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	await setWithdrawn(event.params.id, true, id);
	return answer({ ok: true });
});
