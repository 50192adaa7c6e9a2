// A picture of the site turned by some degrees: another picture, so that what shows the first goes on showing it.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { PictureTurned } from '$lib/server/intake/contract';
import { turnPicture } from '$lib/server/intake/pictures';
import { compile } from '$lib/server/validate';

const checkBody = compile(PictureTurned);

export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const { picture, degrees } = await body(event, checkBody);
	return answer(await turnPicture(picture, degrees, actor), 201);
});
