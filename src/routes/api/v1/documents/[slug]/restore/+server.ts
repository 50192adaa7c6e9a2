// Brings back what was set aside.
import type { RequestHandler } from './$types';
import { restore } from '$lib/server/documents/change';
import { staff } from '$lib/server/guard/guard';
import { documentAnswer, presentSlug, route } from '$lib/server/http/api';

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	const slug = await presentSlug(event.params.slug);
	await restore(slug, id);
	return documentAnswer(slug);
});
