// Icons for covers, found by a word.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { iconsFor } from '$lib/server/intake/icons';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer({ items: await iconsFor(event.url.searchParams.get('q')?.slice(0, 80) ?? '', 40), next: null });
});
