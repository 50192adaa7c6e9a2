// Programs in browsers, on other websites (Fetch Standard, “HTTP CORS protocol”): where the owner allows their origin, they speak to the API by
// a token. A cookie never counts there, so that nobody's sign-in is used by a page that they only look at.
import type { RequestEvent } from '@sveltejs/kit';
import { settings } from '../settings';
import { site } from '../site/site';

/** Seconds for which a browser need not ask again. */
const asksAgain = 600;

/** The origin of another website whose programs may speak to the API, where the request comes from one. */
export async function programOrigin({ request: { headers }, route }: RequestEvent): Promise<string | null> {
	const origin = headers.get('origin');
	if (!origin || !route.id?.startsWith('/api/v1/') || settings().origins.includes(origin)) return null;
	const { programOrigins = [] } = await site();
	return programOrigins.includes(origin) ? origin : null;
}

/** What a browser asks before it sends what a form could not. */
export const asksBefore = ({ request }: RequestEvent): boolean => request.method === 'OPTIONS' && request.headers.has('access-control-request-method');

/** The answer to that. */
export const mayAsk = (): Response =>
	new Response(null, {
		status: 204,
		headers: {
			'access-control-allow-methods': 'GET, HEAD, POST, PUT, PATCH, DELETE',
			'access-control-allow-headers': 'authorization, content-type, idempotency-key, if-match, if-none-match, traceparent',
			'access-control-max-age': String(asksAgain)
		}
	});

/** Lets a program at that origin read an answer. */
export function readableAt(origin: string, { headers }: Response): void {
	headers.set('access-control-allow-origin', origin);
	headers.append('vary', 'Origin');
	headers.set('access-control-expose-headers', 'etag, retry-after, ratelimit, ratelimit-policy, x-request-id');
}
