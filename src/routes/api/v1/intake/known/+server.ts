// Documents that have the same bytes already.
import type { RequestHandler } from './$types';
import { documentsWith } from '$lib/server/documents/labels';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { KnownQuery } from '$lib/server/intake/contract';
import { checked, compile } from '$lib/server/validate';

const checkQuery = compile(KnownQuery);

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const { sha256 } = checked(checkQuery, Object.fromEntries(event.url.searchParams));
	return answer({ items: await documentsWith(sha256), next: null });
});
