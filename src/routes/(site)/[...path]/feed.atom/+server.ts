// The feed of a catalogue (RFC 4287): what a visitor sees in it, newest first.
import type { RequestHandler } from './$types';
import { visitor } from '#core/access/decide';
import { IanuaError } from '#core/errors';
import { textWithTag } from '$lib/server/http/conditional';
import { problem } from '$lib/server/http/problem';
import { feedOfList } from '$lib/server/placing/sitemap';
import { pageAt } from '$lib/server/placing/page-view';
import { settings } from '$lib/server/settings';
import { site } from '$lib/server/site/site';

export const GET: RequestHandler = async (event) => {
	const path = `/${event.params.path}`;
	const answer = await pageAt(path, { who: visitor, person: null }, undefined, { order: '-changed' });
	// a feed is read without signing in: a page kept from visitors is as if it had none
	if (answer.state !== 'seen' || answer.page.body.layout !== 'catalogue') return problem(new IanuaError('not-found'), event.locals.requestId);
	const { IANUA_ORIGIN } = settings();
	const { name } = await site();
	const { title, body } = answer.page;
	const address = `${path === '/' ? '' : path}/feed.atom`;
	const feed = feedOfList({ address, id: IANUA_ORIGIN + path, page: IANUA_ORIGIN + path, title, author: name }, body.list);
	return textWithTag(event, feed, 'application/atom+xml');
};
