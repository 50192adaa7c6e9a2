// Dead ends and side doors: listed, with their spans of time, and mended.
import type { RequestHandler } from './$types';
import { wholeNumber } from '#core/text/number';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { pathOf } from '$lib/server/placing/json';
import { intervalsOf, mend, mismatches, mismatchJson } from '$lib/server/placing/mismatches';
import { Mend } from '$lib/server/placing/contract';
import { pageDraft } from '$lib/server/placing/views';
import { compile } from '$lib/server/validate';

const checkMend = compile(Mend);
const most = 500;

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const { searchParams } = event.url;
	const path = searchParams.get('page');
	const found = await mismatches({
		page: path ? (await pageDraft(pathOf(path))).id : undefined,
		document: searchParams.get('document') ?? undefined,
		draft: searchParams.has('draft')
	});
	const offset = wholeNumber(searchParams.get('cursor'), 0);
	const shown = found.slice(offset, offset + most);
	const intervals = await intervalsOf(shown);
	return answer({
		items: shown.map((mismatch, i) => ({ ...mismatchJson(mismatch), intervals: intervals[i] })),
		next: offset + most < found.length ? String(offset + most) : null
	});
});
export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	return answer(await mend(await body(event, checkMend), actor));
});
