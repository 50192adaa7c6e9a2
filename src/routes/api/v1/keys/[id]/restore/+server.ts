// Gives back a key that was withdrawn.
import type { RequestHandler } from './$types';
import { setWithdrawn } from '$lib/server/access/key-list';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	await setWithdrawn(event.params.id, false, id);
	return answer({ ok: true });
});
