// The published revisions of a page; one of them made the draft again.
import { Type } from '@sinclair/typebox';
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { pageJson, pathOf } from '$lib/server/placing/json';
import { goBackTo } from '$lib/server/placing/commands';
import { pageDraft, revisionsOf } from '$lib/server/placing/views';
import { compile } from '$lib/server/validate';

const checkBody = compile(Type.Object({ number: Type.Integer({ minimum: 1 }) }, { additionalProperties: false }));

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer({ items: await revisionsOf((await pageDraft(pathOf(event.params.path))).id), next: null });
});
export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const { number } = await body(event, checkBody);
	const { id } = await pageDraft(pathOf(event.params.path));
	await goBackTo(id, number, actor);
	return answer(pageJson(await pageDraft(id)));
});
