// One page by its path (the front page is %2F): looked at, changed, set aside.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { pageJson, pathOf } from '$lib/server/placing/json';
import { PageChange, pageDraft, saveDraft, setPageAside } from '$lib/server/placing/pages';
import { compile } from '$lib/server/validate';

const checkBody = compile(PageChange);

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer(pageJson(await pageDraft(pathOf(event.params.path))));
});
export const PATCH: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const change = await body(event, checkBody);
	const { id } = await pageDraft(pathOf(event.params.path));
	await saveDraft(id, { ...change, draftNumber: null }, actor);
	return answer(pageJson(await pageDraft(id)));
});
export const DELETE: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	await setPageAside((await pageDraft(pathOf(event.params.path))).id, actor);
	return answer({ ok: true });
});
