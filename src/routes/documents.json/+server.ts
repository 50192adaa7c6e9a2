// What a visitor sees listed, for the pages of other websites (<ianua-list>): of folders and topics, in an order, some at a time.
import type { RequestHandler } from './$types';
import { textWithTag } from '$lib/server/http/conditional';
import { openList } from '$lib/server/placing/open-list';
import { settings } from '$lib/server/settings';
import { site } from '$lib/server/site/site';

export const GET: RequestHandler = async (event) => {
	const [list, { name }] = await Promise.all([openList(event.url.searchParams, event.locals.language), site()]);
	const items = list.items.map(({ slug, title, description, folder, pages, bytes, date, changedAt, cover }) => ({
		href: `${settings().IANUA_ORIGIN}/d/${slug}`,
		title,
		description,
		folder,
		pages,
		bytes,
		date,
		changedAt,
		// height to width of what stands on its cover
		ratio: cover.ratio
	}));
	const behind = list.offset + items.length;
	const answer = textWithTag(event, JSON.stringify({ site: name, items, next: behind < list.total ? behind : null }), 'application/json');
	// open to everyone: any website may show it
	answer.headers.set('access-control-allow-origin', '*');
	return answer;
};
