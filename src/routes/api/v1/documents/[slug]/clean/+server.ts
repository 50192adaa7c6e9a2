// An edition without active content, made of the one in force.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { documentAnswer, presentSlug, route } from '$lib/server/http/api';
import { checkDone } from '$lib/server/intake/bring-in';
import { makeCleaned } from '$lib/server/intake/derivatives';

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	const slug = await presentSlug(event.params.slug);
	await checkDone(await makeCleaned(slug, id), 15_000);
	return documentAnswer(slug, 201);
});
