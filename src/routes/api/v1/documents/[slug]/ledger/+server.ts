// The ledger of a document, newest first.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { documentView } from '$lib/server/documents/view';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { ledger } from '$lib/server/readership/ledger';
import { LedgerQuery } from '$lib/server/readership/query';
import { checked, compile } from '$lib/server/validate';

const checkQuery = compile(LedgerQuery, { coerce: true });

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const { from, until, ...query } = checked(checkQuery, Object.fromEntries(event.url.searchParams));
	const view = await documentView(event.params.slug);
	if (!view) throw new IanuaError('not-found');
	const { items, next } = await ledger({ document: view.id, from: from ? new Date(from) : undefined, until: until ? new Date(until) : undefined, ...query });
	return answer({ items, next });
});
