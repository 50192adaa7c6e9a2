// The groups that a website may grant (PATCH); or all of it withdrawn (DELETE).
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { changeWebsite, WebsiteChange, withdrawWebsite } from '$lib/server/access/websites';
import { owner } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { isId } from '$lib/server/id';
import { compile } from '$lib/server/validate';

const check = compile(WebsiteChange);

export const PATCH: RequestHandler = route(async (event) => {
	const { id } = owner(event);
	if (!isId(event.params.id)) throw new IanuaError('not-found');
	return answer({ before: { groups: await changeWebsite(event.params.id, await body(event, check), id) } });
});
export const DELETE: RequestHandler = route(async (event) => {
	const { id } = owner(event);
	if (!isId(event.params.id)) throw new IanuaError('not-found');
	await withdrawWebsite(event.params.id, id);
	return answer({ ok: true });
});
