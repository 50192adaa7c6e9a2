// The pages of the site, and one made.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { pageJson } from '$lib/server/placing/json';
import { addPage } from '$lib/server/placing/commands';
import { listPages, pageDraft } from '$lib/server/placing/views';
import { PageGiven } from '$lib/server/placing/contract';
import { compile } from '$lib/server/validate';

const checkBody = compile(PageGiven);

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer({ items: (await listPages(event.url.searchParams.has('aside'))).map(({ id: _, ...line }) => line), next: null });
});
export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const id = await addPage(await body(event, checkBody), actor);
	return answer(pageJson(await pageDraft(id)), 201);
});
