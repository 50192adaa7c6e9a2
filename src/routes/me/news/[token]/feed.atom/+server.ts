// A reader's own feed (RFC 4287), at an address that is theirs alone: what came out of what they may read, the newest first.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { messages } from '#core/words/messages';
import { readableBy } from '$lib/server/access/readable';
import { sql } from '$lib/server/db/client';
import { textWithTag } from '$lib/server/http/conditional';
import { problem } from '$lib/server/http/problem';
import { newsAmong } from '$lib/server/news/out';
import { personOfFeed } from '$lib/server/news/wishes';
import { personById } from '$lib/server/people/who';
import { atomFeed } from '$lib/server/placing/sitemap';
import { settings } from '$lib/server/settings';
import { site } from '$lib/server/site/site';

const most = 50;

export const GET: RequestHandler = async (event) => {
	const person = await personOfFeed(event.params.token);
	const caller = person && (await personById(person));
	// of somebody suspended, what anybody may read is no news of theirs either
	if (!caller || (caller.who.kind === 'member' && caller.who.suspended)) return problem(new IanuaError('not-found'), event.locals.requestId);
	const { IANUA_ORIGIN } = settings();
	const [{ name }, items] = await Promise.all([site(), readableBy(caller).then(({ ids }) => newsAmong(ids, sql()`true`, most))]);
	const { news } = messages[event.locals.language];
	const feed = atomFeed({
		id: IANUA_ORIGIN + event.url.pathname,
		self: IANUA_ORIGIN + event.url.pathname,
		page: `${IANUA_ORIGIN}/me`,
		title: `${name}: ${news.head as string}`,
		author: name,
		entries: items.map((item) => ({
			id: `urn:uuid:${item.edition}`,
			title: item.title,
			updated: item.at.toISOString(),
			href: `${IANUA_ORIGIN}/d/${item.slug}?from=news`,
			summary: item.description || ((item.isEdition ? news.isEdition : news.isNew) as string)
		}))
	});
	return textWithTag(event, feed, 'application/atom+xml');
};
