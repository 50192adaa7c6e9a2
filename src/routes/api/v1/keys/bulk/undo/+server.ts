// Puts keys back as a change to many found them.
import type { RequestHandler } from './$types';
import { KeysUndo, undoKeys } from '$lib/server/access/key-list';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { compile } from '$lib/server/validate';

const checkBody = compile(KeysUndo);

export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	await undoKeys(await body(event, checkBody), actor);
	return answer({ ok: true });
});
