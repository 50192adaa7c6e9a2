// Withdraws a key.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { withdrawKey } from '$lib/server/access/keys';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';

export const DELETE: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	if (!/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(event.params.id)) throw new IanuaError('key-unknown');
	await withdrawKey(event.params.id, id);
	return answer({ ok: true });
});
