// One message to a program, sent once more.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { owner } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { isId } from '$lib/server/id';
import { sendAgain } from '$lib/server/readership/messages';

export const POST: RequestHandler = route(async (event) => {
	owner(event);
	const { id, message } = event.params;
	if (!isId(id) || !isId(message)) throw new IanuaError('not-found');
	return answer(await sendAgain(id, message));
});
