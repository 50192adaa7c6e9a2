// What documents say in fields, from a table (text/csv): with ?preview what it would change, without, all of it or nothing.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { fieldsFromTable } from '$lib/server/documents/fields-table';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { tableLimits } from '$lib/server/http/table';

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	if (Number(event.request.headers.get('content-length') ?? 0) > tableLimits.bytes) throw new IanuaError('body-too-large');
	const look = event.url.searchParams.get('preview');
	return answer(await fieldsFromTable(new Uint8Array(await event.request.arrayBuffer()), look !== null && look !== 'false', id));
});
