// On which pages the words stand that a reader looks for.
import type { RequestHandler } from './$types';
import { fileRequestOf, part } from '$lib/server/http/api';
import { foundOn } from '$lib/server/reading/chain';

export const GET: RequestHandler = part(
	async (event) => Response.json({ pages: await foundOn(fileRequestOf(event, event.params.slug)) }, { headers: { 'cache-control': 'no-store' } }),
	true
);
