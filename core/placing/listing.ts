// Which documents are listed, and how: a catalogue is a page that lists, a document list stands among the words of an article.
import { Type, type Static } from '@sinclair/typebox';
import { counted, listWords } from '../text/list';
import { slugPattern } from '../documents/address';
import { oneOf } from '../schema';

export const listShows = ['list', 'covers', 'table'] as const;
/** Documents shown at once. */
export const listStep = 60;
/** Of what was found, each with its places, fewer are shown at once. */
const foundStep = 20;
/** How many documents of a list are shown at once where words are looked for, or none. */
export const listStepFor = (words: string): number => (words ? foundStep : listStep);
export const listOrders = ['title', '-changed', 'folder', '-pages', 'given'] as const;
export const orderWords: Record<(typeof listOrders)[number], string> = {
	title: 'by title',
	'-changed': 'newest first',
	folder: 'by folder',
	'-pages': 'longest first',
	given: 'as arranged here'
};

/** Documents of these folders, with these topics, of these fields, or picked by hand; all there are where it names none. */
const listingFields = {
	folders: Type.Optional(Type.Array(Type.String({ maxLength: 200 }), { maxItems: 200 })),
	topics: Type.Optional(Type.Array(Type.String({ maxLength: 80 }), { maxItems: 200 })),
	/** Those that say one of these in a field, by its name. */
	fields: Type.Optional(Type.Record(Type.String({ maxLength: 60 }), Type.Array(Type.String({ maxLength: 500 }), { maxItems: 200 }))),
	documents: Type.Optional(Type.Array(Type.String({ pattern: slugPattern, maxLength: 80 }), { maxItems: 2000 })),
	show: oneOf(listShows),
	order: Type.Optional(oneOf(listOrders)),
	/** Choosing a title shows the document beside the list. */
	beside: Type.Boolean(),
	/** Filters by folder and topic with counts, and find. */
	filters: Type.Optional(Type.Boolean()),
	/** The first so many in its order and no more; all of them, in parts, where it is not said. */
	most: Type.Optional(Type.Integer({ minimum: 1, maximum: listStep }))
};
export const Listing = Type.Object(listingFields, { additionalProperties: false });
export type Listing = Static<typeof Listing>;

/** A document list of an article. Its id names it in the page's address, where a reader narrows it. */
export const ListAttrs = Type.Composite([Type.Object({ id: Type.Optional(Type.String({ pattern: '^[A-Za-z0-9_-]{6,30}$' })) }), Listing], {
	additionalProperties: false
});
export type ListAttrs = Static<typeof ListAttrs>;

/** What a list takes in: documents that fit any of these; `everything` there is where it names nothing. */
export function selectionOf({ folders = [], topics = [], fields = {}, documents = [] }: Listing) {
	const said = Object.entries(fields).filter(([, values]) => values.length);
	const everything = !folders.length && !topics.length && !said.length && !documents.length;
	return { folders, topics, fields: Object.fromEntries(said), documents, everything };
}

/** As a new one comes: every document, the newest first. */
export const newListing: Listing = { show: 'list', order: '-changed', beside: false, filters: false };

/** Where the third document picked by hand stands, `list-3`; of the list with an id in an article, `id-3`. */
export const pickedPlace = (index: number, list = 'list'): string => `${list}-${index + 1}`;

/** 'in Notices or Leaflets, or about boating; newest first, 12 at most': what is listed, after a number of documents. */
export function listingWords({ folders = [], topics = [], fields = {}, documents = [], order = 'title', beside, most }: Listing): string {
	const which = [
		...(folders.length ? [`in ${listWords(folders, 'or')}`] : []),
		...(topics.length ? [`about ${listWords(topics, 'or')}`] : []),
		...Object.values(fields).flatMap((values) => (values.length ? [`marked ${listWords(values, 'or')}`] : [])),
		...(documents.length ? [`of the ${documents.length} picked by hand`] : [])
	];
	const how = [orderWords[order], ...(most ? [`${counted(most, 'document', 'documents')} at most`] : []), ...(beside ? ['each read beside the list'] : [])];
	return `${which.length ? which.join(', or ') : 'of all there are'}; ${how.join(', ')}`;
}
