// The groups with their people of today.
import type { RequestHandler } from './$types';
import { answer, route, staff } from '$lib/server/http/api';
import { listGroups } from '$lib/server/people/service';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer({ items: await listGroups(), next: null });
});
