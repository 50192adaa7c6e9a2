// Puts documents back as a bulk change found them.
import type { RequestHandler } from './$types';
import { undoMany } from '$lib/server/documents/change';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { UndoBody } from '$lib/server/documents/contract';
import { compile } from '$lib/server/validate';

const checkBody = compile(UndoBody);

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	await undoMany((await body(event, checkBody)).undo, id);
	return answer({ ok: true });
});
