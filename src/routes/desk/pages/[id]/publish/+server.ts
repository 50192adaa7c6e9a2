// Publishes the draft, now or later, or takes the page down. A draft with dead ends is published only when that is meant.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { Publishing } from '$lib/server/placing/json';
import { putOutPage } from '$lib/server/placing/putting-out';
import { pageDraft } from '$lib/server/placing/pages';
import { compile } from '$lib/server/validate';

const check = compile(Publishing);

export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const id = event.params.id!;
	const { asks, deadEnds } = await putOutPage(id, await body(event, check), actor);
	if (asks) return answer({ asks: deadEnds });
	const { publishedAt, publishAt } = await pageDraft(id);
	return answer({ publishedAt, publishAt });
});
