// Gives back a key that was withdrawn.
import type { RequestHandler } from './$types';
import { restoreKey } from '$lib/server/access/keys';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	await restoreKey(event.params.id, id);
	return answer({ ok: true });
});
