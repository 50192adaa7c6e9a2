// What is open here, in Markdown for language models; not where the owner does not want that.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { textWithTag } from '$lib/server/http/conditional';
import { problem } from '$lib/server/http/problem';
import { llmsTxt } from '$lib/server/placing/sitemap';
import { site } from '$lib/server/site/site';

export const GET: RequestHandler = async (event) => {
	const { llms } = await site();
	return llms === false ? problem(new IanuaError('not-found'), event.locals.requestId) : textWithTag(event, await llmsTxt(), 'text/plain');
};
