// The API of pages, placements and mismatches: each operation with what it takes and gives. Requests are checked by these schemas, and openapi.json is made of them.
import { Type } from '@sinclair/typebox';
import { DoorChange, positions } from '#core/access/door';
import { layouts } from '#core/placing/content';
import { languages } from '#core/words/words';
import { DoorAnswer } from '../access/contract';
import { Instant, Nothing, nullable, oneOf, type Operation, pagePath, withBefore } from '../http/contract';
import { Publishing } from './json';
import { Mend } from './mismatches';
import { PageChange, PageGiven } from './pages';

/** A door of a page: it follows none. */
const PageDoor = Type.Object({ ...Type.Omit(DoorAnswer, ['follows']).properties, changedAt: Instant, changedBy: nullable(Type.String()) });

export const PageAnswer = Type.Object({
	path: Type.String(),
	title: Type.String(),
	layout: oneOf(layouts),
	content: Type.Any({ description: 'as docs/architecture.md has it for each layout' }),
	draftNumber: Type.Integer(),
	published: Type.Boolean(),
	publishedAt: nullable(Instant),
	publishAt: nullable(Instant),
	changed: Type.Boolean({ description: 'the draft was saved after it was published' }),
	placements: Type.Integer(),
	draftAt: Instant,
	inNavigation: Type.Boolean(),
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

export const MismatchAnswer = Type.Object({
	kind: oneOf(['dead-end', 'side-door']),
	page: Type.String({ description: 'its path' }),
	pageTitle: Type.String(),
	document: Type.String({ description: 'its slug' }),
	documentTitle: Type.String(),
	placement: Type.String(),
	from: Instant,
	audience: Audience,
	intervals: Type.Array(IntervalAnswer),
	remedies: Type.Array(Mend.properties.remedy),
	intended: nullable(Type.Object({ why: Type.String(), by: nullable(Type.String()), at: Instant }))
});

export const MismatchQuery = Type.Object({
	page: Type.Optional(Type.String({ description: 'a path' })),
	document: Type.Optional(Type.String()),
	draft: Type.Optional(Type.String({ description: 'as the drafts have it, published or not' })),
	cursor: Type.Optional(Type.String())
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
	inNavigation: Type.Boolean(),
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

export const placingOperations: readonly Operation[] = [
	{ method: 'get', path: '/pages', words: 'The pages of the site', status: 200, answer: Type.Object({ items: Type.Array(PageLine), next: Type.Null() }) },
	{ method: 'post', path: '/pages', words: 'Makes a page; it is a draft until published', body: PageGiven, status: 201, answer: PageAnswer },
	{ method: 'get', path: pagePath, words: 'One page with its draft; the front page is %2F', status: 200, answer: PageAnswer },
	{ method: 'patch', path: pagePath, words: 'Changes the draft of a page, and its door at once', body: PageChange, status: 200, answer: PageAnswer },
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
		answer: Type.Object({ items: Type.Array(Revision), next: Type.Null() })
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
		answer: Type.Object({ items: Type.Array(MismatchAnswer), next: nullable(Type.String()) })
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
		method: 'patch',
		path: '/navigation',
		words: 'Orders the navigation',
		body: Type.Object({ paths: Type.Array(Type.String()) }),
		status: 200,
		answer: withBefore(Nothing, Type.Object({ paths: Type.Array(Type.String()) }))
	}
];
