// Tries what failed once more (POST), or withdraws a webhook (DELETE).
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { owner } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { isId } from '$lib/server/id';
import { tryAgain, withdrawWebhook } from '$lib/server/readership/webhooks';

export const POST: RequestHandler = route(async (event) => {
	owner(event);
	if (!isId(event.params.id)) throw new IanuaError('not-found');
	await tryAgain(event.params.id);
	return answer({ ok: true });
});
export const DELETE: RequestHandler = route(async (event) => {
	const { id } = owner(event);
	if (!isId(event.params.id)) throw new IanuaError('not-found');
	await withdrawWebhook(event.params.id, id);
	return answer({ ok: true });
});
