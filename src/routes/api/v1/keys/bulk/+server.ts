// One change to many keys, all or none.
import type { RequestHandler } from './$types';
import { changeKeys, KeysChange } from '$lib/server/access/key-list';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { compile } from '$lib/server/validate';

const checkBody = compile(KeysChange);

export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	return answer(await changeKeys(await body(event, checkBody), actor));
});
