// The API of pages, placements and mismatches: each operation with what it takes and gives. Requests are checked by these schemas, and openapi.json is made of them.
import { Type, type Static } from '@sinclair/typebox';
import { DoorChange, positions } from '#core/access/door';
import { Article, Catalogue, layouts } from '#core/placing/content';
import { Pocket } from '#core/placing/pocket';
import { Listing, listShows } from '#core/placing/listing';
import { pagePathPattern } from '#core/placing/path';
import { patterns } from '#core/placing/patterns';
import { Line } from '#core/text/line';
import { languages } from '#core/words/words';
import { DoorAnswer } from '../access/contract';
import { FormerGiven, FormerOutcome, FormerView, MissedView } from './former';
import { FilesElsewhere, SitemapGiven } from './other-sitemap';
import { placesOperations } from './places-contract';
import { Cursor, Instant, listInParts, listOf, Nothing, nullable, oneOf, type Operation, pagePath, withBefore } from '../http/contract';

/** A page as the API takes it. */
const pageFields = {
	path: Type.String({ maxLength: 200, pattern: pagePathPattern }),
	title: Line(200),
	content: Type.Unknown({ description: 'as the layout has it; checked against the layout’s own schema' }),
	inNavigation: Type.Boolean(),
	label: Type.Union([Type.Null(), Line(30)], { description: 'its few words in the navigation; null gives its title' }),
	language: nullable(oneOf(languages)),
	door: DoorChange
};
export const PageGiven = Type.Object(
	{
		path: pageFields.path,
		title: pageFields.title,
		layout: Type.Optional(oneOf(layouts)),
		content: Type.Optional(pageFields.content),
		like: Type.Optional(
			Type.String({
				maxLength: 200,
				description: 'path of a page to begin with: its draft, layout, language and door without its hours, out of the navigation'
			})
		),
		pattern: Type.Optional(oneOf(patterns, { description: 'an article that begins with headings to be filled in, in the page’s language' })),
		inNavigation: Type.Optional(pageFields.inNavigation),
		label: Type.Optional(pageFields.label),
		language: Type.Optional(pageFields.language),
		door: Type.Optional(pageFields.door)
	},
	{ additionalProperties: false }
);
export type PageGiven = Static<typeof PageGiven>;
export const PageChange = Type.Partial(
	Type.Object({
		...pageFields,
		draftNumber: Type.Integer({
			description: 'of the draft that one started from: refused where somebody saved since; without it, whatever is there is written over'
		})
	}),
	{ additionalProperties: false }
);
export type PageChange = Static<typeof PageChange>;

export const Mend = Type.Object(
	{
		page: Type.String({ maxLength: 200, description: 'path of the page' }),
		document: Type.String({ maxLength: 80 }),
		placement: Type.Optional(Type.String({ maxLength: 40 })),
		remedy: oneOf(['restore', 'page-door', 'admit', 'follow', 'narrow', 'locked', 'take-out', 'intended'] as const),
		/** Why a side door is meant to be. */
		why: Type.Optional(Type.String({ maxLength: 500 })),
		/** Takes back that a side door is meant to be. */
		undo: Type.Optional(Type.Boolean())
	},
	{ additionalProperties: false }
);
export type Mend = Static<typeof Mend>;

export const Publishing = Type.Object(
	{
		published: Type.Optional(Type.Boolean()),
		/** An instant to come; null calls it off. */
		at: Type.Optional(Type.Union([Type.String({ format: 'date-time' }), Type.Null()])),
		ask: Type.Optional(
			Type.Boolean({
				description: 'for who can be asked: where readers would meet dead ends that they do not meet now, nothing is published and they are told'
			})
		)
	},
	{ additionalProperties: false }
);

export type Publishing = Static<typeof Publishing>;

const Cover = Type.Object({
	slug: Type.String(),
	query: Type.String({ description: 'what follows the address of the picture' }),
	alt: Type.String(),
	ratio: Type.Union([Type.Number(), Type.Null()], { description: 'of height to width; null where the cover is no page' })
});

/** What the editor draws a placement of it with. */
export const AtHand = Type.Object({
	slug: Type.String(),
	title: Type.String(),
	description: Type.String(),
	pages: Type.Integer(),
	bytes: Type.Integer(),
	date: Type.String({ description: 'when its edition came, as the site’s day' }),
	cover: Cover,
	edition: Type.Integer({ description: 'its number' }),
	folder: Type.String(),
	position: oneOf(positions),
	who: Type.String(),
	sentence: Type.String()
});
export type AtHand = Static<typeof AtHand>;

const ShownField = Type.Object({ name: Type.String(), words: Type.String(), value: Type.String(), href: nullable(Type.String()) });
const ListedDocument = Type.Object({
	slug: Type.String(),
	title: Type.String(),
	description: Type.String(),
	folder: Type.String(),
	facts: Type.String(),
	fields: Type.Array(ShownField, { description: 'what it says in the fields that lists show' }),
	pages: Type.Integer(),
	bytes: Type.Integer(),
	date: Type.String({ description: 'when its edition came, as the site’s day' }),
	changedAt: Instant,
	cover: Cover,
	language: nullable(Type.String({ description: 'in which it is written (BCP 47); null where that is not known' })),
	hits: Type.Array(Type.Object({ page: Type.Integer(), stretches: Type.Array(Type.Object({ text: Type.String(), marked: Type.Boolean() })) }), {
		description: 'the first pages on which what was asked for stands, with the words around it'
	})
});
export type ListedDocument = Static<typeof ListedDocument>;

const Counts = Type.Array(Type.Object({ value: Type.String(), count: Type.Integer() }), {
	description: 'how many documents each would show, the other filter and the find taken into account'
});
/** A list as somebody sees it. */
export const SeenList = Type.Object({
	show: oneOf(listShows),
	beside: Type.Boolean(),
	filters: Type.Boolean(),
	items: Type.Array(ListedDocument),
	announced: Type.Array(
		Type.Object({
			slug: Type.String(),
			title: Type.String(),
			description: Type.String(),
			who: Type.String({ description: 'for whom it is kept' }),
			needsSignIn: Type.Boolean()
		}),
		{ description: 'what they may not read, but know of; after the last of the others' }
	),
	total: Type.Integer(),
	offset: Type.Integer(),
	order: Type.String(),
	folders: Counts,
	topics: Counts,
	fields: Type.Array(Type.Object({ name: Type.String(), words: Type.String(), values: Counts }), { description: 'the fields by which it can be narrowed' })
});
export type SeenList = Static<typeof SeenList>;

export const ShelfQuery = Type.Object(
	{
		q: Type.Optional(Type.String({ maxLength: 300, description: 'words to be found' })),
		slug: Type.Optional(Type.Array(Type.String({ maxLength: 120 }), { maxItems: 100, description: 'just these documents' }))
	},
	{ additionalProperties: false }
);

/** A door of a page: it follows none. */
const PageDoor = Type.Object({ ...Type.Omit(DoorAnswer, ['follows']).properties, changedAt: Instant, changedBy: nullable(Type.String()) });

export const PageAnswer = Type.Object({
	path: Type.String(),
	title: Type.String(),
	layout: oneOf(layouts),
	content: Type.Union([Article, Catalogue, Pocket], { description: 'as the layout has it' }),
	draftNumber: Type.Integer(),
	published: Type.Boolean(),
	publishedAt: nullable(Instant),
	publishAt: nullable(Instant),
	changed: Type.Boolean({ description: 'the draft was saved after it was published' }),
	placements: Type.Integer(),
	draftAt: Instant,
	draftBy: nullable(Type.String({ description: 'name of who saved the draft last' })),
	inNavigation: Type.Boolean(),
	label: nullable(Type.String()),
	language: nullable(oneOf(languages)),
	door: PageDoor,
	setAsideAt: Type.Optional(nullable(Instant))
});

export const IntervalAnswer = Type.Object({
	from: Instant,
	until: nullable(Instant),
	words: Type.String(),
	people: Type.Integer(),
	of: Type.Integer(),
	anyone: Type.Boolean()
});

const Audience = Type.Object({
	words: Type.String(),
	people: Type.Integer({ description: 'of today; 0 where anyone is meant' }),
	of: Type.Integer(),
	anyone: Type.Boolean()
});

/** A place on a published page that a change would break. */
export const PlaceAnswer = Type.Object({
	document: Type.String({ description: 'its slug' }),
	documentTitle: Type.String(),
	page: Type.String({ description: 'its path' }),
	pageTitle: Type.String(),
	front: Type.Boolean({ description: 'whether it is the front page' }),
	placement: Type.String(),
	form: Type.String(),
	audience: Type.Optional(Audience)
});

const PlacedMismatchAnswer = Type.Object({
	kind: oneOf(['dead-end', 'side-door']),
	pageId: Type.String({ format: 'uuid' }),
	page: Type.String({ description: 'its path' }),
	pageTitle: Type.String(),
	document: Type.String({ description: 'its slug' }),
	documentTitle: Type.String(),
	placement: Type.String(),
	from: Instant,
	audience: Audience,
	remedies: Type.Array(Mend.properties.remedy),
	intended: nullable(Type.Object({ why: Type.String(), by: nullable(Type.String()), at: Instant })),
	leadsTo: nullable(
		Type.Object({ path: Type.String(), title: Type.String() }, { description: 'of a teaser: the page that they cannot open; null where it is the document' })
	)
});

export const MismatchAnswer = Type.Object({ ...PlacedMismatchAnswer.properties, intervals: Type.Array(IntervalAnswer) });

export const MismatchQuery = Type.Object({
	page: Type.Optional(Type.String({ description: 'a path' })),
	document: Type.Optional(Type.String({ description: 'a document’s slug' })),
	draft: Type.Optional(Type.String({ description: 'as the drafts have it, published or not' })),
	limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 500, description: 'how many at most' })),
	cursor: Cursor
});

const PageLine = Type.Object({
	path: Type.String(),
	title: Type.String(),
	layout: oneOf(layouts),
	door: Type.Object({ position: oneOf(positions), who: Type.String(), sentence: Type.String() }),
	published: Type.Boolean(),
	publishedAt: nullable(Instant),
	publishAt: nullable(Instant),
	changed: Type.Boolean(),
	placements: Type.Integer(),
	draftAt: Instant,
	draftBy: nullable(Type.String({ description: 'name of who saved the draft last' })),
	inNavigation: Type.Boolean(),
	label: nullable(Type.String()),
	language: nullable(oneOf(languages)),
	setAsideAt: nullable(Instant)
});
const Revision = Type.Object({
	number: Type.Integer(),
	title: Type.String(),
	publishedAt: Instant,
	publishedBy: nullable(Type.String()),
	inForce: Type.Boolean()
});

export const placingOperations = [
	...placesOperations,
	{ method: 'get', path: '/pages', words: 'The pages of the site', status: 200, answer: listOf(PageLine) },
	{ method: 'post', path: '/pages', words: 'Makes a page; it is a draft until published', body: PageGiven, status: 201, answer: PageAnswer },
	{ method: 'get', path: pagePath, words: 'One page with its draft; the front page is %2F', status: 200, answer: PageAnswer },
	{
		method: 'patch',
		path: pagePath,
		words: 'Changes the draft of a page, and its door at once; tells whom the draft would turn away',
		body: PageChange,
		status: 200,
		answer: Type.Object({
			...PageAnswer.properties,
			mismatches: Type.Array(PlacedMismatchAnswer),
			before: Type.Object({ door: Type.Optional(DoorChange) })
		})
	},
	{ method: 'delete', path: pagePath, words: 'Sets a page aside', status: 200, answer: Nothing },
	{ method: 'post', path: `${pagePath}/restore`, words: 'Brings back a page that was set aside', status: 200, answer: PageAnswer },
	{
		method: 'post',
		path: `${pagePath}/publish`,
		words: 'Publishes the draft, now or at an instant, or takes the page down',
		body: Publishing,
		status: 200,
		answer: Type.Composite([PageAnswer, Type.Object({ deadEnds: Type.Integer() })])
	},
	{
		method: 'get',
		path: `${pagePath}/revisions`,
		words: 'Published revisions, the newest first',
		status: 200,
		answer: listOf(Revision)
	},
	{
		method: 'post',
		path: `${pagePath}/revisions`,
		words: 'Makes an earlier revision the draft',
		body: Type.Object({ number: Type.Integer({ minimum: 1 }) }),
		status: 200,
		answer: PageAnswer
	},
	{
		method: 'get',
		path: '/mismatches',
		words: 'Dead ends and side doors, with their spans of time',
		query: MismatchQuery,
		status: 200,
		answer: listInParts(MismatchAnswer, {})
	},
	{
		method: 'post',
		path: '/mismatches',
		words: 'Mends a dead end or a side door',
		body: Mend,
		status: 200,
		answer: Type.Object({ before: Type.Object({ document: Type.Optional(DoorChange), page: Type.Optional(DoorChange) }) })
	},
	{
		method: 'get',
		path: '/shelf',
		words: 'Documents at hand while a page is written: those with a word, or those named',
		query: ShelfQuery,
		status: 200,
		answer: listOf(AtHand)
	},
	{
		method: 'post',
		path: '/listing',
		words: 'What a document list would show whoever asks, and how many documents a visitor; nothing is changed',
		body: Listing,
		status: 200,
		answer: Type.Object({ ...SeenList.properties, visitors: Type.Integer() })
	},
	{
		method: 'patch',
		path: '/navigation',
		words: 'Orders the navigation',
		body: Type.Object({ paths: Type.Array(Type.String()) }),
		status: 200,
		answer: withBefore(Nothing, Type.Object({ paths: Type.Array(Type.String()) }))
	},
	{
		method: 'get',
		path: '/former-addresses',
		words: 'Addresses of an old website that lead to documents, with how often somebody came by them',
		query: Type.Object({
			document: Type.Optional(Type.String({ description: 'only those of this document' })),
			q: Type.Optional(Type.String({ description: 'only those with these letters in them' })),
			limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 500, description: 'how many at most' })),
			cursor: Type.Optional(Type.String({ description: '`next` of the answer before' }))
		}),
		status: 200,
		answer: listInParts(FormerView, {})
	},
	{
		method: 'post',
		path: '/former-addresses',
		words: 'Has addresses of an old website lead to documents for good; says what came, or with preview would come, of each',
		body: FormerGiven,
		status: 200,
		answer: listOf(FormerOutcome)
	},
	{
		method: 'delete',
		path: '/former-addresses/{id}',
		words: 'Lets a former address go',
		status: 200,
		answer: Type.Object({ before: Type.Object({ path: Type.String(), document: Type.String() }) })
	},
	{
		method: 'post',
		path: '/former-addresses/elsewhere',
		words: 'Reads the sitemap of another website: the files that it says lie there, each beside the document that has its name here. Nothing is set by it',
		body: SitemapGiven,
		status: 200,
		answer: FilesElsewhere
	},
	{
		method: 'get',
		path: '/former-addresses/missed',
		words: 'Addresses that were asked for and are not here, those asked for most first',
		status: 200,
		answer: listOf(MissedView)
	}
] as const satisfies readonly Operation[];
