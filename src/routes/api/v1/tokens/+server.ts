// One's tokens for programs.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { listTokens, makeToken, TokenGiven } from '$lib/server/people/tokens';
import { compile } from '$lib/server/validate';

const checkBody = compile(TokenGiven);

export const GET: RequestHandler = route(async (event) => answer({ items: await listTokens(staff(event).id), next: null }));
export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	return answer(await makeToken(id, await body(event, checkBody)), 201);
});
