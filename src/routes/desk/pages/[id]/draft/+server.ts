// Saves the draft that the editor sends, and tells who would now be turned away from what stands on it.
import { Type } from '@sinclair/typebox';
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { mismatches } from '$lib/server/placing/mismatches';
import { PageChange, pageDraft, saveDraft } from '$lib/server/placing/pages';
import { compile } from '$lib/server/validate';

const check = compile(Type.Composite([PageChange, Type.Object({ draftNumber: Type.Integer() })], { additionalProperties: false }));

export const PUT: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const id = event.params.id!;
	const draftNumber = await saveDraft(id, await body(event, check), actor);
	const [{ path }, found] = await Promise.all([pageDraft(id), mismatches({ page: id, draft: true })]);
	return answer({ draftNumber, savedAt: new Date().toISOString(), path, mismatches: found });
});
