// The document page.
import type { PageServerLoad } from './$types';
import { canBeShown } from '#core/documents/edition';
import { decide, visitor } from '#core/access/decide';
import { shownFields } from '#core/documents/fields';
import { coverMark } from '#core/documents/cover';
import { paperWords } from '#core/intake/paper';
import { asksToRemember, enter } from '$lib/server/http/page';
import { recordLook } from '$lib/server/reading/record';
import { site } from '$lib/server/site/site';
import { navigationFor } from '$lib/server/placing/views';

export const load: PageServerLoad = async (event) => {
	const entered = await enter(event, event.params.slug, 'see');
	const { found, caller, asker } = entered;
	await recordLook(found, asker);
	const { edition } = found;
	const { fields = [], documentPage } = await site();
	return {
		navigation: await navigationFor(caller),
		document: {
			slug: found.slug,
			title: found.title,
			description: found.description,
			fields: shownFields(fields, found.fields, event.locals.language),
			pages: edition.pages,
			bytes: edition.bytes,
			paper: paperWords(edition.sizes),
			language: edition.language,
			changedAt: edition.createdAt.toISOString(),
			/** Of the cover's height to its width; null where the cover is no page. */
			ratio: found.cover === null && edition.sizes[0] ? edition.sizes[0].height / edition.sizes[0].width : null,
			cover: { mark: `${edition.number}-${coverMark(found.cover)}`, alt: found.coverAlt },
			shown: canBeShown(edition)
		},
		/** Its particulars, with the document to read in place. */
		inPlace: documentPage === 'particulars',
		asks: await asksToRemember(event, entered),
		from: event.url.searchParams.get('from'),
		maySave: entered.may('save'),
		/** Told to other websites: what they show of it is what a visitor sees. */
		visitors: decide(visitor, found.thing, 'see', Date.now()).allowed,
		searchable: found.standing.indexable
	};
};
