// The ledger of all documents, by cursor.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { ledger } from '$lib/server/readership/ledger';
import { LedgerQuery, timeOf } from '$lib/server/readership/query';
import { checked, compile } from '$lib/server/validate';

const checkQuery = compile(LedgerQuery, { coerce: true });

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer(await ledger(await timeOf(checked(checkQuery, Object.fromEntries(event.url.searchParams)))));
});
