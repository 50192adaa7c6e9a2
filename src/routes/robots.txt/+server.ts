// What robots may come to (RFC 9309): everything a visitor may; what is not to be listed says so itself.
import type { RequestHandler } from './$types';
import { settings } from '$lib/server/settings';

export const GET: RequestHandler = () =>
	new Response(
		`User-agent: *\nDisallow: /desk\nDisallow: /api/\nDisallow: /k/\nDisallow: /me\nDisallow: /sign-in\nDisallow: /embed/\n\nSitemap: ${settings().IANUA_ORIGIN}/sitemap.xml\n`,
		{ headers: { 'content-type': 'text/plain; charset=utf-8' } }
	);
