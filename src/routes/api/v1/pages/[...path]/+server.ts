// One page by its path (the front page is %2F): looked at, changed, set aside.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { pageJson, pathOf } from '$lib/server/placing/json';
import { mismatches, mismatchJson } from '$lib/server/placing/mismatches';
import { changePage, setPageAside } from '$lib/server/placing/commands';
import { PageChange } from '$lib/server/placing/contract';
import { pageDraft } from '$lib/server/placing/views';
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
	const before = await changePage(id, change, actor);
	const [draft, found] = await Promise.all([pageDraft(id), mismatches({ page: id, draft: true })]);
	return answer({ ...pageJson(draft), mismatches: found.map(mismatchJson), before });
});
export const DELETE: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	await setPageAside((await pageDraft(pathOf(event.params.path))).id, actor);
	return answer({ ok: true });
});
