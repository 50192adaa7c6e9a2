// What one is told by mail: a report every week or month, a first opening.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { setTold, Telling } from '$lib/server/readership/told';
import { compile } from '$lib/server/validate';

const check = compile(Telling);

export const PATCH: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	return answer(await setTold(id, await body(event, check)));
});
