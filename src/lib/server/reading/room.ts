// What a reading room is given, at whichever address it stands.
import { error, type RequestEvent } from '@sveltejs/kit';
import { canBeShown } from '#core/documents/edition';
import { IanuaError } from '#core/errors';
import type { OutlineLine, Facts } from '#core/intake/condition';
import { askedSettings, roomSettings, type ReadingSettings, type RoomPlace } from '#core/reading/settings';
import { messages } from '#core/words/messages';
import { sql } from '../db/client';
import { theRow } from '../db/rows';
import { asksToRemember, enter } from '../http/page';
import { placeOf } from '../placing/views';
import { site } from '../site/site';
import { ownReceipt } from './receipts';

interface RoomFacts {
	readonly outline: readonly OutlineLine[];
	readonly attachments: readonly { readonly name: string }[];
	readonly runs: Facts['runs'] | null;
	readonly reading: ReadingSettings | null;
	readonly text: Facts['text'] | null;
	readonly opening: readonly number[] | null;
}

async function factsOf(document: string, edition: string): Promise<RoomFacts> {
	const row = theRow(
		await sql()<RoomFacts[]>`
		select coalesce(e.facts->'outline', '[]') as outline, coalesce(e.facts->'attachments', '[]') as attachments, e.facts->'runs' as runs, e.facts->>'text' as text, e.facts->'opening' as opening, d.reading
		from document d, edition e where d.id = ${document} and e.id = ${edition}`
	);
	return row;
}

/** Lets a caller into a document's reading room, or turns them away. `from` is what brought them there. */
export async function enterRoom(event: RequestEvent, slug: string, place: RoomPlace, from: string | null) {
	const entered = await enter(event, slug, 'read');
	const { found, caller } = entered;
	const { edition } = found;
	if (!canBeShown(edition)) {
		const known = new IanuaError('cannot-be-shown');
		error(known.status, {
			code: known.code,
			message: 'Its pages cannot be shown here for now. The people who look after this site see it too.',
			heading: found.title
		});
	}
	const [origin, facts, { reading = null }, receipt] = await Promise.all([
		from ? placeOf(from, caller) : null,
		factsOf(found.id, edition.id),
		site(),
		ownReceipt(found, caller, event.locals.language)
	]);
	const settings = roomSettings(place, [reading, facts.reading, askedSettings((name) => event.url.searchParams.get(name))]);
	return {
		document: {
			slug: found.slug,
			title: found.title,
			pages: edition.pages,
			bytes: edition.bytes,
			runs: facts.runs ?? edition.sizes,
			language: edition.language,
			edition: edition.number,
			outline: facts.outline,
			attachments: facts.attachments.map(({ name }) => name),
			hasWords: facts.text !== 'no',
			/** Steps of the file that its first page takes. */
			opening: facts.opening ?? []
		},
		place,
		settings,
		from,
		back: settings.back ? { path: settings.back, title: null } : (origin ?? { path: `/d/${found.slug}`, title: found.title }),
		maySave: entered.may('save'),
		mayPrint: entered.may('print'),
		hasFile: entered.mayHaveFile(),
		receipt,
		language: event.locals.language,
		words: messages[event.locals.language].room,
		asks: place === 'window' && (await asksToRemember(event, entered)),
		searchable: found.standing.indexable
	};
}
