// Websites whose members read kept documents in frames there, by passes: for the owners of the site.
import type { RequestHandler } from './$types';
import { addWebsite, WebsiteGiven, websites } from '$lib/server/access/websites';
import { owner } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { compile } from '$lib/server/validate';

const check = compile(WebsiteGiven);

export const GET: RequestHandler = route(async (event) => {
	owner(event);
	return answer({ items: await websites(), next: null });
});
export const POST: RequestHandler = route(async (event) => {
	const { id } = owner(event);
	return answer(await addWebsite(await body(event, check), id), 201);
});
