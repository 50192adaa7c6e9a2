// The ledger of all documents, newest first, by cursor.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { ledger } from '$lib/server/readership/ledger';
import { LedgerQuery } from '$lib/server/readership/query';
import { checked, compile } from '$lib/server/validate';

const checkQuery = compile(LedgerQuery, { coerce: true });

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const { from, until, ...query } = checked(checkQuery, Object.fromEntries(event.url.searchParams));
	return answer(await ledger({ from: from ? new Date(from) : undefined, until: until ? new Date(until) : undefined, ...query }));
});
