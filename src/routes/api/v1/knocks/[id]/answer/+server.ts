// The answer to a knock.
import type { RequestHandler } from './$types';
import { answerKnock, KnockAnswer } from '$lib/server/access/knocks';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { compile } from '$lib/server/validate';

const checkBody = compile(KnockAnswer);

export const POST: RequestHandler = route(async (event) => {
	const person = staff(event);
	return answer(await answerKnock(event.params.id, await body(event, checkBody), person, event.locals.caller.token));
});
