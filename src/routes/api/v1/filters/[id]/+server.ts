// One saved filter.
import type { RequestHandler } from './$types';
import { dropFilter } from '$lib/server/documents/saved-filters';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';

export const DELETE: RequestHandler = route(async (event) => {
	await dropFilter(staff(event).id, event.params.id);
	return answer({ ok: true });
});
