// A key for each of a list of addresses, mailed.
import type { RequestHandler } from './$types';
import { KeysMailed, mailKeys } from '$lib/server/access/keys';
import { staff } from '$lib/server/guard/guard';
import { answer, body, presentSlug, route } from '$lib/server/http/api';
import { compile } from '$lib/server/validate';

const checkBody = compile(KeysMailed);

export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const slug = await presentSlug(event.params.slug);
	const made = await mailKeys([slug], await body(event, checkBody), actor, event.locals.caller.token);
	const items = made.flatMap(({ address, mailed, keys }) => keys.map(({ id, url }) => ({ address, id, mailed, url })));
	return answer({ items, next: null }, 201);
});
