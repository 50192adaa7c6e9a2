// Publishes the draft, or takes the page down.
import { Type } from '@sinclair/typebox';
import type { RequestHandler } from './$types';
import { answer, body, route, staff } from '$lib/server/http/api';
import { pageDraft, publish, takeDown } from '$lib/server/placing/service';
import { compile } from '$lib/server/validate';

const check = compile(Type.Object({ published: Type.Boolean() }, { additionalProperties: false }));

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	const { published } = await body(event, check);
	if (published) await publish(event.params.id!, id);
	else await takeDown(event.params.id!, id);
	const { publishedAt } = await pageDraft(event.params.id!);
	return answer({ publishedAt });
});
