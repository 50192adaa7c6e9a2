// A feed (RFC 4287) of what a visitor sees listed, of folders and topics, the newest first.
import type { RequestHandler } from './$types';
import { textWithTag } from '$lib/server/http/conditional';
import { openList } from '$lib/server/placing/open-list';
import { feedOfList } from '$lib/server/placing/sitemap';
import { settings } from '$lib/server/settings';
import { site } from '$lib/server/site/site';

export const GET: RequestHandler = async (event) => {
	const { searchParams } = event.url;
	const asked = new URLSearchParams(['folder', 'topic'].flatMap((name) => searchParams.getAll(name).map((value) => [name, value])));
	const [list, { name }] = await Promise.all([openList(asked, event.locals.language, '-changed'), site()]);
	const title = [name, ...asked.values()].join(': ');
	return textWithTag(
		event,
		feedOfList({ address: '/documents.atom', query: asked.toString(), page: settings().IANUA_ORIGIN, title, author: name }, list),
		'application/atom+xml'
	);
};
