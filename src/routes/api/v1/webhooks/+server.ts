// Programs that are told what happens: for the owners of the site.
import type { RequestHandler } from './$types';
import { owner } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { addWebhook, WebhookGiven, webhooks } from '$lib/server/readership/webhooks';
import { compile } from '$lib/server/validate';

const check = compile(WebhookGiven);

export const GET: RequestHandler = route(async (event) => {
	owner(event);
	return answer({ items: await webhooks(), next: null });
});
export const POST: RequestHandler = route(async (event) => {
	const { id } = owner(event);
	return answer(await addWebhook(await body(event, check), id, event.locals.caller.token), 201);
});
