// What a document list would show, while it is made.
import type { RequestHandler } from './$types';
import { visitor } from '#core/access/decide';
import { Listing } from '#core/placing/listing';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { listFor } from '$lib/server/placing/catalogue';
import { compile } from '$lib/server/validate';

const check = compile(Listing);

export const POST: RequestHandler = route(async (event) => {
	staff(event);
	const listing = await body(event, check);
	const [seen, { total }] = await Promise.all([listFor(listing, event.locals.caller, {}), listFor(listing, { who: visitor, person: null }, {})]);
	return answer({ ...seen, visitors: total });
});
