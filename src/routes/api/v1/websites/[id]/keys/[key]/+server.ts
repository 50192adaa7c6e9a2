// Withdraws a key of a website: whoever reads by it is let in no more.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { withdrawWebsiteKey } from '$lib/server/access/websites';
import { owner } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { isId } from '$lib/server/id';

export const DELETE: RequestHandler = route(async (event) => {
	const { id } = owner(event);
	if (!isId(event.params.id) || !isId(event.params.key)) throw new IanuaError('not-found');
	await withdrawWebsiteKey(event.params.id, event.params.key, id);
	return answer({ ok: true });
});
