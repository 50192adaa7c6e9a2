// Takes a picture for pages or for the site's mark.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { withUpload } from '$lib/server/intake/multipart';
import { addPicture } from '$lib/server/intake/pictures';

export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	return answer(await withUpload(event.request, ({ stream }) => addPicture(stream, actor)), 201);
});
