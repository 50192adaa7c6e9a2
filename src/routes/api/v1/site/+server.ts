// What the owner sets of the whole site.
import type { RequestHandler } from './$types';
import { owner, staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { changeSite, site, SiteChange } from '$lib/server/site/site';
import { compile } from '$lib/server/validate';

const checkBody = compile(SiteChange);

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer(await site());
});
export const PATCH: RequestHandler = route(async (event) => {
	const { id } = owner(event);
	const before = await changeSite(await body(event, checkBody), id);
	return answer({ ...(await site()), before });
});
