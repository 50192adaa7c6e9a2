// Documents to be placed, found by a word.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { shelf, shelfOf } from '$lib/server/placing/shelf';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const { searchParams } = event.url;
	const named = searchParams.getAll('slug');
	return answer({ items: named.length ? await shelfOf(named.slice(0, 100)) : await shelf(searchParams.get('q') ?? '') });
});
