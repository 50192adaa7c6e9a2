// One document: GET gives it, PATCH changes it and its door, DELETE sets it aside.
import type { RequestHandler } from './$types';
import { changeDocument, DocumentChange, setAside } from '$lib/server/documents/change';
import { inFolders, staff } from '$lib/server/guard/guard';
import { answer, body, documentAnswer, presentSlug, route } from '$lib/server/http/api';
import { compile } from '$lib/server/validate';

const checkChange = compile(DocumentChange);

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return documentAnswer(event.params.slug);
});

export const PATCH: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	const change = await body(event, checkChange);
	if (change.folder !== undefined) inFolders(event, change.folder.trim());
	const { slug, before } = await changeDocument(await presentSlug(event.params.slug), change, id);
	return documentAnswer(slug, 200, { before });
});

export const DELETE: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	await setAside(await presentSlug(event.params.slug), id);
	return answer({ ok: true });
});
