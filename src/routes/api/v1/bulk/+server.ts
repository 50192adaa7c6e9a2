// One change to many documents, all or none.
import type { RequestHandler } from './$types';
import { BulkChange, changeMany } from '$lib/server/documents/change';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { placesBroken } from '$lib/server/placing/mismatches';
import { placesOf } from '$lib/server/placing/placed';
import { lostElsewhere } from '$lib/server/readership/reports/places';
import { compile } from '$lib/server/validate';

const checkBody = compile(BulkChange);

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	const { ask, ...change } = await body(event, checkBody);
	const asks = !ask ? [] : change.aside ? await placesOf(change.documents) : change.door ? await placesBroken(change.documents, change.door) : [];
	const elsewhere = ask && (change.aside || change.door) ? await lostElsewhere(change.documents, change.aside ? null : (change.door ?? null)) : [];
	return answer(asks.length || elsewhere.length ? { undo: [], asks, elsewhere } : { undo: await changeMany(change, id) });
});
