// Folders of documents: GET with how many documents each has, PATCH renames one wherever it stands.
import type { RequestHandler } from './$types';
import { renameLabel } from '$lib/server/documents/change';
import { labels } from '$lib/server/documents/labels';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { LabelChange } from '$lib/server/documents/contract';
import { compile } from '$lib/server/validate';

const checkBody = compile(LabelChange);

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer({ items: await labels('folder'), next: null });
});

export const PATCH: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	const { from, to } = await body(event, checkBody);
	return answer({ changed: await renameLabel('folder', from, to, id) });
});
