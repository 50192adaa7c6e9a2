// Publishes a page's draft, now or at an instant, or takes the page down.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { mismatches } from '$lib/server/placing/mismatches';
import { pageJson, pathOf, Publishing } from '$lib/server/placing/json';
import { pageDraft, publish, publishLater, takeDown } from '$lib/server/placing/service';
import { compile } from '$lib/server/validate';

const checkBody = compile(Publishing);

export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const said = event.request.headers.get('content-length') !== '0' && event.request.headers.has('content-type');
	const { published = true, at } = said ? await body(event, checkBody) : {};
	const { id } = await pageDraft(pathOf(event.params.path));
	if (at !== undefined) await publishLater(id, at === null ? null : new Date(at), actor);
	else if (published) await publish(id, actor);
	else await takeDown(id, actor);
	const found = published && at === undefined ? await mismatches({ page: id }) : [];
	return answer({ ...pageJson(await pageDraft(id)), deadEnds: found.filter((f) => f.kind === 'dead-end').length });
});
