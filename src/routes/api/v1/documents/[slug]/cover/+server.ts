// The cover: a picture of one's own as a form, or an icon by its name. Pages are chosen by changing the document.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { body, documentAnswer, presentSlug, route } from '$lib/server/http/api';
import { IconBody } from '$lib/server/intake/contract';
import { iconCover, pictureCover } from '$lib/server/intake/cover';
import { withUpload } from '$lib/server/intake/multipart';
import { compile } from '$lib/server/validate';

const checkBody = compile(IconBody);

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	const slug = await presentSlug(event.params.slug);
	if (event.request.headers.get('content-type')?.includes('application/json')) await iconCover(slug, (await body(event, checkBody)).icon, id);
	else await withUpload(event.request, ({ stream }) => pictureCover(slug, stream, id));
	return documentAnswer(slug);
});
