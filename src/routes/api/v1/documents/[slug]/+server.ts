// One document: GET gives it, PATCH changes it and its door.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { changeDocument, DocumentChange, documentJson, documentView } from '$lib/server/documents/service';
import { answer, body, route, staff } from '$lib/server/http/api';
import { compile } from '$lib/server/validate';

const checkChange = compile(DocumentChange);

async function shown(slug: string) {
	const view = await documentView(slug);
	if (!view) throw new IanuaError('not-found');
	return view;
}

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer(documentJson(await shown(event.params.slug!)));
});

export const PATCH: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	const change = await body(event, checkChange);
	const { slug } = await shown(event.params.slug!);
	return answer(documentJson(await shown(await changeDocument(slug, change, id))));
});
