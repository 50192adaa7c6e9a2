// Addresses for search engines (sitemaps.org 0.9).
import type { RequestHandler } from './$types';
import { sitemap } from '$lib/server/placing/sitemap';

export const GET: RequestHandler = async () => new Response(await sitemap(), { headers: { 'content-type': 'application/xml; charset=utf-8' } });
