// Brings back a page that was set aside.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { pageJson, pathOf } from '$lib/server/placing/json';
import { pageDraft } from '$lib/server/placing/views';
import { restorePage } from '$lib/server/placing/commands';

export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const { id } = await pageDraft(pathOf(event.params.path), true);
	await restorePage(id, actor);
	return answer(pageJson(await pageDraft(id)));
});
