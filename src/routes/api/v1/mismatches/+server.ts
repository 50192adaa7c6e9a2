// Dead ends and side doors: listed, with their spans of time, and mended.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { afterOf, cursorAfter } from '$lib/server/http/cursor';
import { pathOf } from '$lib/server/placing/json';
import { intervalsOf, mend, mismatches, mismatchJson, orderOf } from '$lib/server/placing/mismatches';
import { Mend, MismatchQuery } from '$lib/server/placing/contract';
import { pageDraft } from '$lib/server/placing/views';
import { checked, compile } from '$lib/server/validate';

const checkMend = compile(Mend);
const checkQuery = compile(MismatchQuery, { coerce: true });
const most = 500;

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const { page: path, document, draft, cursor, limit = most } = checked(checkQuery, Object.fromEntries(event.url.searchParams));
	const at = Date.now();
	const asked = {
		page: path ? (await pageDraft(pathOf(path))).id : undefined,
		document,
		draft: draft !== undefined
	};
	const found = await mismatches(asked, at);
	const after = afterOf(cursor, 'mismatch', (value) => /^\d [01] \d{9} \//.test(value));
	const behind = after ? found.filter((one) => orderOf(one, at) > after.value) : found;
	const shown = behind.slice(0, limit);
	const last = behind.length > limit ? shown.at(-1) : undefined;
	const intervals = await intervalsOf(shown);
	return answer({
		items: shown.map((mismatch, i) => ({ ...mismatchJson(mismatch), intervals: intervals[i] })),
		next: last ? cursorAfter('mismatch', { value: orderOf(last, at), id: last.pageId }) : null
	});
});
export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	return answer(await mend(await body(event, checkMend), actor));
});
