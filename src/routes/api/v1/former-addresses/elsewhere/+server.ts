// What another website's sitemap says lies there.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { filesElsewhere, SitemapGiven } from '$lib/server/placing/other-sitemap';
import { compile } from '$lib/server/validate';

const check = compile(SitemapGiven);

export const POST: RequestHandler = route(async (event) => {
	staff(event);
	const { url } = await body(event, check);
	return answer(await filesElsewhere(url));
});
