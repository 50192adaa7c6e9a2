// What changed between two editions of a document.
import { Type } from '@sinclair/typebox';
import type { RequestHandler } from './$types';
import { compareEditions } from '$lib/server/documents/compare';
import { staff } from '$lib/server/guard/guard';
import { answer, presentSlug, route } from '$lib/server/http/api';
import { checked, compile } from '$lib/server/validate';

const checkQuery = compile(Type.Object({ before: Type.Integer({ minimum: 1 }), after: Type.Integer({ minimum: 1 }) }), { coerce: true });

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const { before, after } = checked(checkQuery, Object.fromEntries(event.url.searchParams));
	return answer(await compareEditions(await presentSlug(event.params.slug), before, after));
});
