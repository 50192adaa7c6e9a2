// What the find in the lintel shows while one types: documents, pages, people and groups, a few of each.
import type { RequestHandler } from './$types';
import { desksFound, type Found } from '$lib/server/find';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const items: Found[] = await desksFound(event.url.searchParams.get('q')?.trim().slice(0, 300) ?? '');
	return answer({ items });
});
