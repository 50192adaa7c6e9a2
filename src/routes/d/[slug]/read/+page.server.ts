// The reading room.
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';
import { decide } from '#core/access/decide';
import { IanuaError } from '#core/errors';
import { enter } from '$lib/server/http/page';
import { instantOf } from '$lib/server/people/who';
import { placeOf } from '$lib/server/placing/service';

export const load: PageServerLoad = async (event) => {
	const { found, caller } = await enter(event, event.params.slug, 'read');
	const { edition } = found;
	if (edition.pages === 0 || edition.condition === 'refused') {
		const known = new IanuaError('cannot-be-shown');
		error(known.status, {
			code: known.code,
			message: 'Its pages cannot be shown here for now. The people who look after this site see it too.',
			heading: found.title
		});
	}
	const from = event.url.searchParams.get('from');
	const place = from ? await placeOf(from, caller) : null;
	return {
		document: {
			slug: found.slug,
			title: found.title,
			pages: edition.pages,
			bytes: edition.bytes,
			sizes: edition.sizes,
			language: edition.language,
			edition: edition.number
		},
		from,
		back: place ?? { path: `/d/${found.slug}`, title: found.title },
		maySave: decide(caller.who, found.thing, 'save', instantOf(caller)).allowed,
		searchable: found.position === 'open' && found.thing.door.listed
	};
};
