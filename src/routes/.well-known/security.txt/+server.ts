// Where weaknesses are reported (RFC 9116), once the owner has said where.
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';
import { settings } from '$lib/server/settings';
import { site } from '$lib/server/site/site';

const halfYear = 180 * 86_400_000;

export const GET: RequestHandler = async () => {
	const { contact } = await site();
	if (!contact) error(404, { code: 'not-found', message: 'There is nothing here for you at this address.' });
	const lines = [
		`Contact: ${contact.includes('://') ? contact : `mailto:${contact}`}`,
		// RFC 9116, 2.5.5: less than a year ahead; to the day, so that it is not new at each request
		`Expires: ${new Date(Math.floor((Date.now() + halfYear) / 86_400_000) * 86_400_000).toISOString()}`,
		'Preferred-Languages: en',
		`Canonical: ${settings().IANUA_ORIGIN}/.well-known/security.txt`
	];
	return new Response(`${lines.join('\r\n')}\r\n`, { headers: { 'content-type': 'text/plain; charset=utf-8', 'cache-control': 'public, max-age=3600' } });
};
