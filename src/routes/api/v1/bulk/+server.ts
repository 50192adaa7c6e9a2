// One change to many documents, all or none.
import type { RequestHandler } from './$types';
import { BulkChange, changeMany } from '$lib/server/documents/change';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { compile } from '$lib/server/validate';

const checkBody = compile(BulkChange);

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	return answer({ undo: await changeMany(await body(event, checkBody), id) });
});
