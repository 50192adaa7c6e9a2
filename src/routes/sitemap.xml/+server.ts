// Addresses for search engines (sitemaps.org 0.9): all of them, an index of files, or one of these (?part=1).
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { wholeNumber } from '#core/text/number';
import { textWithTag } from '$lib/server/http/conditional';
import { problem } from '$lib/server/http/problem';
import { sitemap } from '$lib/server/placing/sitemap';

export const GET: RequestHandler = async (event) => {
	const asked = event.url.searchParams.get('part');
	const part = wholeNumber(asked, 0);
	const text = asked !== null && part < 1 ? null : await sitemap(asked === null ? null : part);
	return text === null ? problem(new IanuaError('not-found'), event.locals.requestId) : textWithTag(event, text, 'application/xml');
};
