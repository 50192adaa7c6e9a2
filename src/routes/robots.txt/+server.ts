// Search engines may look at the site's pages and open documents; the desk and the API are nothing for them.
import type { RequestHandler } from './$types';

export const GET: RequestHandler = () =>
	new Response('User-agent: *\nDisallow: /desk\nDisallow: /api\nDisallow: /sign-in\nDisallow: /me\n', {
		headers: { 'content-type': 'text/plain; charset=utf-8', 'cache-control': 'public, max-age=3600' }
	});
