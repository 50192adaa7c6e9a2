// The keys of all documents.
import type { RequestHandler } from './$types';
import { KeysQuery } from '$lib/server/access/contract';
import { isMade, listKeys } from '$lib/server/access/key-list';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { afterOf, cursorAfter } from '$lib/server/http/cursor';
import { checked, compile } from '$lib/server/validate';

const checkQuery = compile(KeysQuery, { coerce: true });

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const { cursor, ...query } = checked(checkQuery, Object.fromEntries(event.url.searchParams));
	const { items, next, total } = await listKeys({ ...query, after: afterOf(cursor, 'newest', isMade) });
	return answer({ items, next: next && cursorAfter('newest', next), total });
});
