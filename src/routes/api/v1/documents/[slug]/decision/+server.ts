// What somebody would get at a document's door, now or at another moment, and why.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { tryDoor } from '$lib/server/access/try-door';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { DecisionQuery } from '$lib/server/access/contract';
import { resolve } from '$lib/server/reading/resolve';
import { checked, compile } from '$lib/server/validate';

const checkQuery = compile(DecisionQuery);

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const query = checked(checkQuery, Object.fromEntries(event.url.searchParams));
	const found = await resolve(event.params.slug);
	if (!found || found.gone) throw new IanuaError('not-found');
	return answer(await tryDoor(found.thing, found.id, query));
});
