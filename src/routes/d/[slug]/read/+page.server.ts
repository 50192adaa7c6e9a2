// The reading room.
import type { PageServerLoad } from './$types';
import { decide } from '#core/access/decide';
import { enter } from '$lib/server/http/page';
import { placeOf } from '$lib/server/placing/service';

export const load: PageServerLoad = async (event) => {
	const { found, caller } = await enter(event, event.params.slug, 'read');
	const { edition } = found;
	const from = event.url.searchParams.get('from');
	const place = from ? await placeOf(from, caller) : null;
	return {
		document: { slug: found.slug, title: found.title, pages: edition.pages, bytes: edition.bytes, sizes: edition.sizes, language: edition.language },
		from,
		back: place ?? { path: `/d/${found.slug}`, title: found.title },
		maySave: decide(caller.who, found.thing, 'save', Date.now()).allowed,
		searchable: found.position === 'open' && found.thing.door.listed
	};
};
