// The document page.
import { fail, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';
import { canBeShown } from '#core/documents/edition';
import { decide, visitor } from '#core/access/decide';
import { shownFields } from '#core/documents/fields';
import { coverMark } from '#core/documents/cover';
import { paperWords } from '#core/intake/paper';
import { pagesToLook } from '#core/reading/look';
import { messages } from '#core/words/messages';
import { member } from '$lib/server/guard/guard';
import { fieldsOf } from '$lib/server/http/form';
import { asksToRemember, enter, turnAway } from '$lib/server/http/page';
import { wishesOf } from '$lib/server/news/wishes';
import { placeOf } from '$lib/server/people/attempts';
import { qrSvg } from '$lib/server/placing/qr';
import { foundInside, insideFacts, relatedTo } from '$lib/server/reading/document-page';
import { giveReceipt, ownReceipt } from '$lib/server/reading/receipts';
import { recordLook } from '$lib/server/reading/record';
import { settings } from '$lib/server/settings';
import { site } from '$lib/server/site/site';

export const csr = false;

export const load: PageServerLoad = async (event) => {
	const entered = await enter(event, event.params.slug, 'see');
	const { found, asker, caller } = entered;
	await recordLook(found, asker);
	const { edition } = found;
	const { language } = event.locals;
	const q = event.url.searchParams.get('q') ?? '';
	const address = `${settings().IANUA_ORIGIN}/d/${found.slug}`;
	const [{ fields = [], documentPage }, inside, hits, related, qr, wishes, receipt] = await Promise.all([
		site(),
		insideFacts(found),
		entered.may('read') ? foundInside(found, q, placeOf(event.getClientAddress())).catch(turnAway) : [],
		relatedTo(found, caller, language),
		qrSvg(address),
		caller.person ? wishesOf(caller.person.id) : [],
		entered.may('read') ? ownReceipt(found, caller, language) : null
	]);
	return {
		document: {
			slug: found.slug,
			title: found.title,
			description: found.description,
			folder: found.folder,
			fields: shownFields(fields, found.fields, language),
			pages: edition.pages,
			bytes: edition.bytes,
			paper: paperWords(edition.sizes),
			language: edition.language,
			changedAt: edition.createdAt.toISOString(),
			/** Of the cover's height to its width; null where the cover is no page. */
			ratio: found.cover === null && edition.sizes[0] ? edition.sizes[0].height / edition.sizes[0].width : null,
			cover: { mark: `${edition.number}-${coverMark(found.cover)}`, alt: found.coverAlt },
			shown: canBeShown(edition),
			/** Small pictures of its first pages, for who may read it and does not have it before them here. */
			pictures: canBeShown(edition) && entered.may('read') && documentPage !== 'particulars' ? pagesToLook(edition.pages) : [],
			number: edition.number
		},
		inside,
		receipt,
		q,
		hits,
		related,
		address,
		qr,
		/** What of the news that the reader is told of by mail comes from here. */
		wishes: wishes.filter((wish) => wish.document === found.slug || (wish.document === null && (wish.folder === null || wish.folder === found.folder))),
		news: messages[language].news,
		/** Its particulars, with the document to read in place. */
		inPlace: documentPage === 'particulars',
		asks: await asksToRemember(event, entered),
		from: event.url.searchParams.get('from'),
		maySave: entered.may('save'),
		mayPrint: entered.may('print'),
		hasFile: entered.mayHaveFile(),
		/** Told to other websites: what they show of it is what a visitor sees. */
		visitors: decide(visitor, found.thing, 'see', Date.now()).allowed,
		visitorsSave: decide(visitor, found.thing, 'save', Date.now()).allowed,
		searchable: found.standing.indexable
	};
};

export const actions: Actions = {
	/** A member says that they have read the edition which the form names. */
	receipt: async (event) => {
		const person = member(event);
		const { found } = await enter(event, event.params.slug, 'read');
		const words = messages[event.locals.language];
		const { edition } = await fieldsOf(event.request);
		// staff are no readers
		const outcome = person.role === 'member' ? await giveReceipt(found, person, Number(edition)) : 'not-asked';
		if (outcome === 'other-edition') return fail(409, { trouble: words.receipt.other as string });
		if (outcome === 'not-asked') return fail(409, { trouble: words.account.didNotWork as string });
		redirect(303, `/d/${found.slug}#receipt`);
	}
};
