// Publishes a page's draft, now or at an instant, or takes the page down.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { pageJson, pathOf } from '$lib/server/placing/json';
import { Publishing } from '$lib/server/placing/contract';
import { putOutPage } from '$lib/server/placing/putting-out';
import { pageDraft } from '$lib/server/placing/views';
import { compile } from '$lib/server/validate';

const checkBody = compile(Publishing);

export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const said = event.request.headers.get('content-length') !== '0' && event.request.headers.has('content-type');
	const wish = said ? await body(event, checkBody) : {};
	const { id } = await pageDraft(pathOf(event.params.path));
	const { asks, deadEnds } = await putOutPage(id, wish, actor);
	if (asks) throw new IanuaError('dead-ends', { count: String(deadEnds.length), documents: [...new Set(deadEnds.map((d) => d.document))].join(', ') });
	return answer({ ...pageJson(await pageDraft(id)), deadEnds: deadEnds.length });
});
