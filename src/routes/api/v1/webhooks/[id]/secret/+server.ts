// Gives a webhook another secret (POST).
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { owner } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { isId } from '$lib/server/id';
import { newSecretFor } from '$lib/server/readership/webhooks';

export const POST: RequestHandler = route(async (event) => {
	const { id } = owner(event);
	if (!isId(event.params.id)) throw new IanuaError('not-found');
	return answer(await newSecretFor(event.params.id, id));
});
