// Former addresses: those that lead to a document (GET), and more of them (POST), told beforehand where that is wanted.
import type { RequestHandler } from './$types';
import { addFormerAddresses, formerAddresses, FormerGiven } from '$lib/server/placing/former';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { compile } from '$lib/server/validate';
import { wholeNumber } from '#core/text/number';

const check = compile(FormerGiven);

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const { searchParams } = event.url;
	const limit = Math.min(500, Math.max(1, wholeNumber(searchParams.get('limit'), 100)));
	return answer(
		await formerAddresses({
			document: searchParams.get('document') ?? undefined,
			q: searchParams.get('q') ?? undefined,
			after: searchParams.get('cursor') ?? undefined,
			limit
		})
	);
});
export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	return answer({ items: await addFormerAddresses(await body(event, check), id), next: null });
});
