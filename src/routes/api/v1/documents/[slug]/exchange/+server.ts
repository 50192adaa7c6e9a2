// Puts another document in its place wherever it stands on pages.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, presentSlug, route } from '$lib/server/http/api';
import { Exchange } from '$lib/server/placing/places-contract';
import { exchange } from '$lib/server/placing/exchange';
import { compile } from '$lib/server/validate';

const checkExchange = compile(Exchange);

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	return answer(await exchange(await presentSlug(event.params.slug), await body(event, checkExchange), id));
});
