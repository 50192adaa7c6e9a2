// A PDF fetched from a web address by the server.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { body, documentAnswer, route } from '$lib/server/http/api';
import { FromWeb } from '$lib/server/intake/contract';
import { checkDone } from '$lib/server/intake/bring-in';
import { bringInFromWeb } from '$lib/server/intake/source';
import { compile } from '$lib/server/validate';

const checkBody = compile(FromWeb);

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	const made = await bringInFromWeb(await body(event, checkBody), id);
	await checkDone(made.edition, 15_000);
	return documentAnswer(made.slug, 201);
});
