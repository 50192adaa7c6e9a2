// Figures for whoever watches the servers, of this process and of the site (OpenMetrics 1.0). For the machine itself, and for a token.
import type { RequestHandler } from './$types';
import '$lib/server/upkeep/figures';
import { IanuaError } from '#core/errors';
import { near } from '$lib/server/guard/guard';
import { problem } from '$lib/server/http/problem';
import { registry } from '$lib/server/metrics';

export const GET: RequestHandler = async (event) => {
	near(event);
	// what a proxy on the same machine hands on comes from anywhere
	if (event.locals.caller.who.kind !== 'staff' && event.request.headers.has('x-forwarded-for'))
		return problem(new IanuaError('not-found'), event.locals.requestId);
	return new Response(await registry.metrics(), { headers: { 'content-type': registry.contentType, 'cache-control': 'no-store' } });
};
