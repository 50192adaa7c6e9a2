// Publishes the draft, now or later, or takes the page down. A draft with dead ends is published only when that is meant.
import { Type } from '@sinclair/typebox';
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { mismatches } from '$lib/server/placing/mismatches';
import { pageDraft, publish, publishLater, takeDown } from '$lib/server/placing/service';
import { compile } from '$lib/server/validate';

const check = compile(
	Type.Object(
		{
			published: Type.Boolean(),
			at: Type.Optional(Type.Union([Type.String({ format: 'date-time' }), Type.Null()])),
			/** Dead ends have been looked at. */
			anyway: Type.Optional(Type.Boolean())
		},
		{ additionalProperties: false }
	)
);

export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const id = event.params.id!;
	const { published, at, anyway } = await body(event, check);
	if (at === null) await publishLater(id, null, actor);
	else if (!published) await takeDown(id, actor);
	else {
		const deadEnds = (await mismatches({ page: id, draft: true })).filter((m) => m.kind === 'dead-end');
		if (deadEnds.length && !anyway) return answer({ asks: deadEnds });
		if (at) await publishLater(id, new Date(at), actor);
		else await publish(id, actor);
	}
	const { publishedAt, publishAt } = await pageDraft(id);
	return answer({ publishedAt, publishAt });
});
