// Find over the whole site: the pages and the documents that the caller may read.
import type { PageServerLoad } from './$types';
import { turnAway } from '$lib/server/http/page';
import { placeOf } from '$lib/server/people/attempts';
import { listFor, listQueryOf } from '$lib/server/placing/catalogue';
import { findPages } from '$lib/server/placing/find';

export const csr = false;

export const load: PageServerLoad = async ({ locals, url, getClientAddress }) => {
	const query = listQueryOf(url.searchParams, locals.language, placeOf(getClientAddress()));
	const q = query.q?.trim() ?? '';
	const [pages, list] = await Promise.all([
		query.offset ? [] : findPages(locals.caller, q, locals.language),
		listFor({ show: 'list', order: '-changed', beside: false, filters: true }, locals.caller, query).catch(turnAway)
	]);
	return { q, pages, list, query: url.searchParams.toString() };
};
