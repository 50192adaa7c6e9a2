// Members from a table (text/csv): with ?preview what it would change, without, all of it or nothing.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { TableQuery } from '$lib/server/people/contract';
import { readTable, tableLimits } from '$lib/server/http/table';
import { bringInTable, linesToTell, mappingFrom, previewTable } from '$lib/server/people/table';
import { checked, compile } from '$lib/server/validate';

const checkQuery = compile(TableQuery, { coerce: true });

export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const params = event.url.searchParams;
	const { dayOrder, makeGroups, end } = checked(checkQuery, Object.fromEntries(params));
	if (Number(event.request.headers.get('content-length') ?? 0) > tableLimits.bytes) throw new IanuaError('body-too-large');
	const table = readTable(new Uint8Array(await event.request.arrayBuffer()));
	const wish = { mapping: mappingFrom(params), dayOrder, makeGroups, ...(end ? { end: {} } : {}) };
	const preview = params.has('preview') && params.get('preview') !== 'false';
	const plan = preview ? await previewTable(table, wish) : await bringInTable(table, wish, actor);
	return answer({ ...plan, lines: linesToTell(plan.lines), done: !preview });
});
