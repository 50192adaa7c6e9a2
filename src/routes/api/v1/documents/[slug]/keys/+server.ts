// The keys of a document: listed with what each did, and issued. A key's address is given once, here.
import type { RequestHandler } from './$types';
import { KeyGiven } from '#core/access/key';
import { keysOf } from '$lib/server/access/key-list';
import { issueKey } from '$lib/server/access/keys';
import { staff } from '$lib/server/guard/guard';
import { answer, body, presentSlug, route } from '$lib/server/http/api';
import { compile } from '$lib/server/validate';

const checkBody = compile(KeyGiven);

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer({ items: await keysOf(await presentSlug(event.params.slug)), next: null });
});
export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	return answer(await issueKey(await presentSlug(event.params.slug), await body(event, checkBody), id, { token: event.locals.caller.token }), 201);
});
