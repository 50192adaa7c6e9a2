// Sends a webhook a message to try it (POST).
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { owner } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { isId } from '$lib/server/id';
import { tryWebhook } from '$lib/server/readership/webhooks';

export const POST: RequestHandler = route(async (event) => {
	owner(event);
	if (!isId(event.params.id)) throw new IanuaError('not-found');
	return answer(await tryWebhook(event.params.id));
});
