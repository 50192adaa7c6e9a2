// The feed of a catalogue (RFC 4287): what a visitor sees in it, newest first.
import type { RequestHandler } from './$types';
import { visitor } from '#core/access/decide';
import { IanuaError } from '#core/errors';
import { textWithTag } from '$lib/server/http/conditional';
import { problem } from '$lib/server/http/problem';
import { atomFeed } from '$lib/server/placing/sitemap';
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
	const feed = atomFeed({
		id: IANUA_ORIGIN + path,
		self: `${IANUA_ORIGIN}${path === '/' ? '' : path}/feed.atom`,
		page: IANUA_ORIGIN + path,
		title,
		author: name,
		entries: body.list.items.map((item) => ({
			id: `${IANUA_ORIGIN}/d/${item.slug}`,
			title: item.title,
			updated: item.changedAt,
			href: `${IANUA_ORIGIN}/d/${item.slug}`,
			file: { href: `${IANUA_ORIGIN}/d/${item.slug}/file`, bytes: item.bytes },
			summary: item.description || item.facts
		}))
	});
	return textWithTag(event, feed, 'application/atom+xml');
};
