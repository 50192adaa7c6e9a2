// What a reading room is given, at whichever address it stands.
import { error, type RequestEvent } from '@sveltejs/kit';
import { decide } from '#core/access/decide';
import { IanuaError } from '#core/errors';
import { enter } from '../http/page';
import { instantOf } from '../people/who';
import { placeOf } from '../placing/service';

/** Lets a caller into a document's reading room, or turns them away. `from` is what brought them there. */
export async function enterRoom(event: RequestEvent, slug: string, from: string | null) {
	const { found, caller } = await enter(event, slug, 'read');
	const { edition } = found;
	if (edition.pages === 0 || edition.condition === 'refused') {
		const known = new IanuaError('cannot-be-shown');
		error(known.status, {
			code: known.code,
			message: 'Its pages cannot be shown here for now. The people who look after this site see it too.',
			heading: found.title
		});
	}
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
}
