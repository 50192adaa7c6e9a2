// Saves the draft that the editor sends.
import { Type } from '@sinclair/typebox';
import type { RequestHandler } from './$types';
import { answer, body, route, staff } from '$lib/server/http/api';
import { articleFrom, saveDraft } from '$lib/server/placing/service';
import { compile } from '$lib/server/validate';

const check = compile(
	Type.Object(
		{
			title: Type.String({ minLength: 1, maxLength: 200, pattern: '\\S' }),
			content: Type.Unknown(),
			inNavigation: Type.Boolean(),
			draftNumber: Type.Integer()
		},
		{ additionalProperties: false }
	)
);

export const PUT: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	const { title, content, inNavigation, draftNumber } = await body(event, check);
	const next = await saveDraft(event.params.id!, { title: title.trim(), content: articleFrom(content), inNavigation, draftNumber }, id);
	return answer({ draftNumber: next, savedAt: new Date().toISOString() });
});
