// A new edition of a document, sent as a form. Larger ones come through the intake.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { documentAnswer, presentSlug, route } from '$lib/server/http/api';
import { bringInStream, checkDone } from '$lib/server/intake/bring-in';
import { withUpload } from '$lib/server/intake/multipart';

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	const editionOf = await presentSlug(event.params.slug);
	const made = await withUpload(event.request, ({ fileName, stream }) => bringInStream(stream, fileName, id, () => ({ editionOf })));
	await checkDone(made.edition, 15_000);
	return documentAnswer(editionOf, 201);
});
