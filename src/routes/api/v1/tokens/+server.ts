// One's tokens for programs.
import type { RequestHandler } from './$types';
import { answer, body, route, staff } from '$lib/server/http/api';
import { TokenBody } from '$lib/server/http/operations';
import { listTokens, makeToken } from '$lib/server/people/tokens';
import { compile } from '$lib/server/validate';

const checkBody = compile(TokenBody);

export const GET: RequestHandler = route(async (event) => answer({ items: await listTokens(staff(event).id), next: null }));
export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	return answer(await makeToken(id, (await body(event, checkBody)).label), 201);
});
