// A frame hands over the pass that the page around it gave it, and gets a grant for its document in a cookie of its own.
import type { RequestHandler } from './$types';
import { Type } from '@sinclair/typebox';
import { grantCookies, takePass } from '$lib/server/access/passes';
import { body, route } from '$lib/server/http/api';
import { compile } from '$lib/server/validate';

const check = compile(
	Type.Object({ pass: Type.String({ minLength: 1, maxLength: 8000 }), from: Type.String({ maxLength: 300 }) }, { additionalProperties: false })
);

export const POST: RequestHandler = route(async (event) => {
	const { slug } = event.params;
	const { pass, from } = await body(event, check);
	const headers = new Headers({ 'cache-control': 'no-store' });
	for (const cookie of grantCookies(await takePass(pass, slug, from), slug)) headers.append('set-cookie', cookie);
	return new Response(null, { status: 204, headers });
});
