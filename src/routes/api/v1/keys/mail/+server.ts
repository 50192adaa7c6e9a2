// Keys for several documents, for each of a list of addresses, mailed.
import type { RequestHandler } from './$types';
import { mailKeys, ManyKeysMailed } from '$lib/server/access/keys';
import { staff } from '$lib/server/guard/guard';
import { answer, body, presentSlug, route } from '$lib/server/http/api';
import { compile } from '$lib/server/validate';

const checkBody = compile(ManyKeysMailed);

export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const { documents, ...given } = await body(event, checkBody);
	const slugs = [...new Set(await Promise.all(documents.map(presentSlug)))];
	return answer({ items: await mailKeys(slugs, given, actor, event.locals.caller.token), next: null }, 201);
});
