// Another key for a website, to take the place of the one that it has.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { addWebsiteKey, WebsiteKeyGiven } from '$lib/server/access/websites';
import { owner } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { isId } from '$lib/server/id';
import { compile } from '$lib/server/validate';

const check = compile(WebsiteKeyGiven);

export const POST: RequestHandler = route(async (event) => {
	const { id } = owner(event);
	if (!isId(event.params.id)) throw new IanuaError('not-found');
	return answer(await addWebsiteKey(event.params.id, await body(event, check), id), 201);
});
