// Documents to be placed: found by a word, or named.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { shelf, shelfOf } from '$lib/server/placing/shelf';
import { ShelfQuery } from '$lib/server/placing/contract';
import { checked, compile } from '$lib/server/validate';

const checkQuery = compile(ShelfQuery);

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const { searchParams } = event.url;
	const named = searchParams.getAll('slug');
	const { q, slug } = checked(checkQuery, { ...Object.fromEntries(searchParams), ...(named.length ? { slug: named } : {}) });
	return answer({ items: slug ? await shelfOf(slug) : await shelf(q), next: null });
});
