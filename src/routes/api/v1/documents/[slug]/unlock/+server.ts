// The password of a locked file, given once; the file is kept without it.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { body, documentAnswer, presentSlug, route } from '$lib/server/http/api';
import { UnlockBody } from '$lib/server/intake/contract';
import { checkDone } from '$lib/server/intake/bring-in';
import { makeUnlocked } from '$lib/server/intake/derivatives';
import { compile } from '$lib/server/validate';

const checkBody = compile(UnlockBody);

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	const { password } = await body(event, checkBody);
	const slug = await presentSlug(event.params.slug);
	await checkDone(await makeUnlocked(slug, password, id), 15_000);
	return documentAnswer(slug, 201);
});
