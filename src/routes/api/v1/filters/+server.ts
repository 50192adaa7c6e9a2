// One's saved filters of the documents room.
import type { RequestHandler } from './$types';
import { savedFilters, saveFilter } from '$lib/server/documents/saved-filters';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { SavedFilterBody } from '$lib/server/documents/contract';
import { compile } from '$lib/server/validate';

const checkBody = compile(SavedFilterBody);

export const GET: RequestHandler = route(async (event) => answer({ items: await savedFilters(staff(event).id), next: null }));
export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	return answer(await saveFilter(id, await body(event, checkBody)), 201);
});
