// The ledger of a document, by cursor.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { documentView } from '$lib/server/documents/view';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { ledger } from '$lib/server/readership/ledger';
import { LedgerQuery, timeOf } from '$lib/server/readership/query';
import { checked, compile } from '$lib/server/validate';

const checkQuery = compile(LedgerQuery, { coerce: true });

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const query = await timeOf(checked(checkQuery, Object.fromEntries(event.url.searchParams)));
	const view = await documentView(event.params.slug);
	if (!view) throw new IanuaError('not-found');
	return answer(await ledger({ document: view.id, ...query }));
});
