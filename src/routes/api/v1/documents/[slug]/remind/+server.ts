// Reminds those who may open a document and have not.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { remind, Reminding } from '$lib/server/readership/remind';
import { compile } from '$lib/server/validate';

const check = compile(Reminding);

export const POST: RequestHandler = route(async (event) => {
	const { name } = staff(event);
	return answer(await remind(event.params.slug, await body(event, check), { name }));
});
