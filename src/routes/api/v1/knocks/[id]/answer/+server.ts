// The answer to a knock.
import type { RequestHandler } from './$types';
import { answerKnock, KnockAnswer } from '$lib/server/access/knocks';
import { answer, body, route, staff } from '$lib/server/http/api';
import { compile } from '$lib/server/validate';

const checkBody = compile(KnockAnswer);

export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	return answer(await answerKnock(event.params.id!, await body(event, checkBody), actor));
});
