// Finds documents by words. Everybody finds what lists show to them, and words on pages they may read.
import type { RequestHandler } from './$types';
import { findFor } from '$lib/server/documents/find-for';
import { isFoundValue } from '$lib/server/documents/find';
import { answer, route } from '$lib/server/http/api';
import { afterOf, cursorAfter } from '$lib/server/http/cursor';
import { FindQuery } from '$lib/server/documents/contract';
import { placeOf } from '$lib/server/people/attempts';
import { checked, compile } from '$lib/server/validate';

const checkQuery = compile(FindQuery, { coerce: true });

export const GET: RequestHandler = route(async (event) => {
	const { q, cursor, limit = 20 } = checked(checkQuery, Object.fromEntries(event.url.searchParams));
	const { items, next, total } = await findFor(event.locals.caller, placeOf(event.getClientAddress()), q, {
		limit,
		after: afterOf(cursor, 'find', isFoundValue)
	});
	return answer({
		items: items.map(({ slug, title, pages, hits }) => ({
			slug,
			title,
			pages,
			hits: hits.map(({ page, stretches }) => ({ page, text: stretches.map((s) => s.text).join(''), stretches }))
		})),
		next: next && cursorAfter('find', next),
		total
	});
});
