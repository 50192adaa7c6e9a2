// The API of the ledger, reports, and who is told: each operation with what it takes and gives. Requests are checked by these schemas, and openapi.json is made of them.
import { Type, type Static, type TProperties, type TSchema } from '@sinclair/typebox';
import { leftOutRules } from '#core/readership/counting';
import { accessTypes, itemMetrics } from '#core/readership/items';
import { lengths, steps } from '#core/readership/period';
import { Cursor, documentPath, Instant, Limit, listInParts, listOf, Nothing, nullable, oneOf, type Operation } from '../http/contract';
import { LedgerQuery } from './query';
import { Reminding } from './remind';
import { SubscriptionGiven } from './subscriptions';
import { messageStates, MessageView } from './messages';
import { WebhookGiven } from './webhooks';

export const MessagesQuery = Type.Object({
	state: Type.Optional({ ...oneOf(messageStates), description: 'only those that arrived, are on the way, or were given up' }),
	limit: Limit,
	cursor: Cursor
});

/** The time of a report: bounds are days (both included) or instants. */
export const Time = Type.Object({
	from: Type.Optional(Type.String({ description: 'first day, or an instant' })),
	until: Type.Optional(Type.String({ description: 'last day, or an instant' })),
	days: Type.Optional({ ...oneOf(lengths.map(String)), description: 'the last so many days up to today, in place of from and until' }),
	by: Type.Optional({ ...oneOf(steps), description: 'figures by day, week or month; by what fits the time where nothing is said' })
});

/** The tables that each report has; the first is what it is as a table where nothing is said. */
export const reportTables = {
	overview: ['documents', 'days', 'hours', 'sources'],
	document: ['days', 'pages', 'people', 'sources', 'roll'],
	reader: ['read', 'days'],
	places: ['places'],
	turnedAway: ['refusals']
} as const;

/** The same, and whether one of its tables is wanted in place of the report. */
const tabled = (report: keyof typeof reportTables, more: TProperties = {}) =>
	Type.Object({
		...Time.properties,
		...more,
		table: Type.Optional({ ...oneOf(reportTables[report]), description: 'one of its tables, every line of it' }),
		format: Type.Optional({ ...oneOf(['json', 'csv']), description: 'csv: a table, the first of them where none is named' }),
		mark: Type.Optional(Type.String({ description: 'of CSV: with the mark by which spreadsheets know UTF-8' }))
	});

const Entry = Type.Object({
	id: Type.String({ format: 'uuid' }),
	at: Instant,
	kind: Type.String(),
	document: Type.String({ description: 'its slug' }),
	title: Type.String(),
	edition: Type.Integer(),
	who: Type.Object({
		kind: oneOf(['visitor', 'member', 'key', 'staff']),
		name: Type.Optional(Type.String()),
		email: Type.Optional(Type.String()),
		website: Type.Optional(Type.String({ description: 'who came by the pass of another website: its origin' }))
	}),
	reason: nullable(Type.String()),
	source: Type.Object({
		kind: oneOf(['page', 'desk', 'outside', 'direct', 'news']),
		path: Type.Optional(Type.String()),
		title: Type.Optional(Type.String()),
		placement: Type.Optional(Type.String()),
		site: Type.Optional(Type.String())
	}),
	staff: Type.Boolean(),
	robot: Type.Boolean(),
	preload: Type.Boolean(),
	double: Type.Boolean({ description: 'left out of the figures by the double-click rule' }),
	leftOut: nullable(
		oneOf(leftOutRules, { description: 'by which rule it is left out of the figures; `behaviour`: its reader opened more in an hour than a person does' })
	),
	reader: Type.String({ description: 'tells readers apart within the time from `from` until `until`, else within a day; nowhere else' }),
	device: nullable(Type.String()),
	pages: Type.Optional(Type.Array(Type.Object({ page: Type.Integer(), seconds: Type.Number() })))
});
export const Entries = listInParts(Entry, {
	since: nullable(Type.String({ description: 'with the oldest first: where to go on, with `since`, for what came after it; nothing is missed' }))
});

const Days = Type.Object({ first: Type.String({ format: 'date' }), last: Type.String({ format: 'date' }) });
const Period = Type.Object({
	...Days.properties,
	length: Type.Integer({ description: 'days' }),
	by: oneOf(steps),
	preset: nullable(Type.Integer()),
	before: Days
});

/** One table of a report, in place of it. */
const TableRows = Type.Object({
	table: Type.String(),
	period: Period,
	timeZone: Type.String(),
	columns: Type.Array(Type.String()),
	items: Type.Array(Type.Record(Type.String(), nullable(Type.Union([Type.String(), Type.Number(), Type.Boolean()]))), {
		description: 'every line, by the names of the columns'
	})
});
/** A report, or with `table` one of its tables. */
const orTable = <T extends TSchema>(report: T) => Type.Union([report, TableRows]);

/** What every report has; each has more of its own. */
export const Report = Type.Object(
	{
		period: Period,
		whole: Type.Literal(true),
		answer: Type.Array(Type.Object({ text: Type.String(), tone: Type.Optional(oneOf(['strong', 'wrong'])) })),
		figures: Type.Record(Type.String(), Type.Number()),
		bars: Type.Array(Type.Object({ day: Type.String(), openings: Type.Integer(), saves: Type.Integer(), before: Type.Integer() }))
	},
	{ additionalProperties: true }
);

/** The lines of a report that has no figures of its own. */
const linesOf = <T extends TSchema>(line: T) => Type.Object({ period: Period, whole: Type.Literal(true), items: Type.Array(line) });

/** What became of a placement, or of a document on another website: shown → pressed → opened → saved. */
export const PlaceFigures = Type.Object({
	kind: oneOf(['placement', 'outside']),
	where: Type.String({ description: 'the page’s path, or the other website' }),
	title: Type.String(),
	slug: Type.String(),
	document: Type.String(),
	form: nullable(Type.String()),
	shown: Type.Integer(),
	pressed: Type.Integer({
		description: 'led to the document’s page, an opening or a save: whichever was most, as one press can be followed by all of them'
	}),
	openings: Type.Integer(),
	saves: Type.Integer()
});
export type PlaceFigures = Static<typeof PlaceFigures>;

export const Refusals = Type.Object({
	slug: Type.String(),
	title: Type.String(),
	reason: Type.String(),
	page: nullable(Type.String({ description: 'the page from which they came, where it was one' })),
	pageTitle: nullable(Type.String()),
	times: Type.Integer(),
	people: Type.Array(Type.String()),
	nameless: Type.Integer(),
	last: Instant,
	deadEnd: Type.Boolean({ description: 'the page shows the document to people who cannot open it' })
});
export type Refusals = Static<typeof Refusals>;

const month = Type.String({ pattern: '^\\d{4}-\\d{2}$' });
const ItemReportAnswer = Type.Object({
	Report_Header: Type.Object({
		Report_Name: Type.String(),
		Report_ID: Type.String(),
		Release: Type.String(),
		Institution_Name: Type.String(),
		Institution_ID: Type.Record(Type.String(), Type.Array(Type.String())),
		Report_Filters: Type.Object({ Metric_Type: Type.Array(oneOf(itemMetrics)), Begin_Date: Type.String(), End_Date: Type.String() }),
		Report_Attributes: Type.Object({ Attributes_To_Show: Type.Array(Type.String()) }),
		Exceptions: Type.Array(Type.Object({ Code: Type.Integer(), Message: Type.String() })),
		Created: Instant,
		Created_By: Type.String(),
		Registry_Record: Type.String()
	}),
	Report_Items: Type.Array(
		Type.Object({
			Items: Type.Array(
				Type.Object({
					Item: Type.String(),
					Publisher: Type.String(),
					Platform: Type.String(),
					Item_ID: Type.Object({ Proprietary: Type.String(), URI: Type.String() }),
					Attribute_Performance: Type.Array(
						Type.Object({
							Data_Type: Type.Literal('Other'),
							YOP: Type.String(),
							Access_Type: oneOf(accessTypes),
							Performance: Type.Record(Type.String(), Type.Record(month, Type.Integer()), { description: 'by kind of figure and month' })
						})
					)
				})
			)
		})
	)
});

const WebhookAnswer = Type.Object({
	id: Type.String({ format: 'uuid' }),
	url: Type.String(),
	events: Type.Array(Type.String()),
	createdAt: Instant,
	withdrawnAt: nullable(Instant),
	ended: nullable(Type.String({ description: 'why it is sent nothing any more' })),
	delivered: Type.Integer(),
	waiting: Type.Integer(),
	failed: Type.Integer(),
	trouble: nullable(Type.String({ description: 'what the last try that failed got for an answer' }))
});

export const readershipOperations = [
	{
		method: 'get',
		path: `${documentPath}/ledger`,
		words: 'Entries of the ledger',
		query: LedgerQuery,
		status: 200,
		answer: Entries
	},
	{
		method: 'post',
		path: `${documentPath}/remind`,
		words: 'Reminds those who may open it and have not, each at most once a day',
		body: Reminding,
		status: 200,
		answer: Type.Object({ mailed: Type.Integer(), recently: Type.Integer(), failed: Type.Integer() })
	},
	{
		method: 'patch',
		path: '/readership/subscription',
		words: 'What you are told by mail',
		body: SubscriptionGiven,
		status: 200,
		answer: Type.Object({ every: nullable(oneOf(['week', 'month'])), waiting: Type.Array(Type.String({ description: 'whose first opening is waited for' })) })
	},
	{
		method: 'get',
		path: '/webhooks',
		words: 'Programs that are told what happens',
		status: 200,
		answer: listOf(WebhookAnswer)
	},
	{
		method: 'post',
		path: '/webhooks',
		words: 'Tells a program; its secret is given this once',
		body: WebhookGiven,
		status: 201,
		answer: Type.Object({ id: Type.String(), secret: Type.String() })
	},
	{ method: 'post', path: '/webhooks/{id}', words: 'Sends what failed again', status: 200, answer: Nothing },
	{
		method: 'post',
		path: '/webhooks/{id}/secret',
		words: 'Gives a program another secret, this once; for a day messages are signed with both',
		status: 200,
		answer: Type.Object({ secret: Type.String(), both: { ...Instant, description: 'until when messages are signed with the one before as well' } })
	},
	{
		method: 'post',
		path: '/webhooks/{id}/test',
		words: 'Sends a message of the type “test” at once',
		status: 200,
		answer: Type.Object({ arrived: Type.Boolean(), answer: Type.String({ description: 'what became of it, in words' }) })
	},
	{
		method: 'get',
		path: '/webhooks/{id}/messages',
		words: 'What a program was sent in the last 30 days, the newest first, with what became of each',
		query: MessagesQuery,
		status: 200,
		answer: listInParts(MessageView, {})
	},
	{
		method: 'post',
		path: '/webhooks/{id}/messages/{message}',
		words: 'Sends a message once more, at once; its id stays',
		status: 200,
		answer: Type.Object({ arrived: Type.Boolean(), answer: Type.String({ description: 'what became of it, in words' }) })
	},
	{ method: 'delete', path: '/webhooks/{id}', words: 'Withdraws a webhook', status: 200, answer: Nothing },
	{ method: 'get', path: '/ledger', words: 'Entries of the ledger of all documents', query: LedgerQuery, status: 200, answer: Entries },
	{ method: 'get', path: '/readership/overview', words: 'Readership of the whole site', query: tabled('overview'), status: 200, answer: orTable(Report) },
	{
		method: 'get',
		path: '/readership/documents/{slug}',
		words: 'Readership of a document',
		query: tabled('document', {
			edition: Type.Optional(Type.Integer({ minimum: 1, description: 'attention and standing of an earlier edition, by its number' }))
		}),
		status: 200,
		answer: orTable(Report)
	},
	{ method: 'get', path: '/readership/members/{id}', words: 'What a member read', query: tabled('reader'), status: 200, answer: orTable(Report) },
	{ method: 'get', path: '/readership/keys/{id}', words: 'What was done with a key', query: tabled('reader'), status: 200, answer: orTable(Report) },
	{
		method: 'get',
		path: '/readership/places',
		words: 'What became of each placement and on other websites',
		query: tabled('places'),
		status: 200,
		answer: orTable(linesOf(PlaceFigures))
	},
	{ method: 'get', path: '/readership/live', words: 'Entries as they happen (server-sent events)', status: 200, answer: null },
	{
		method: 'get',
		path: '/readership/turned-away',
		words: 'Who was turned away, why, how often',
		query: tabled('turnedAway'),
		status: 200,
		answer: orTable(linesOf(Refusals))
	},
	{
		method: 'get',
		path: '/readership/items',
		words: 'Use of documents in the whole months of a time, as COUNTER 5.1 lays an item report out, from memory (format=tsv is its table)',
		query: Type.Object({
			...Time.properties,
			format: Type.Optional({ ...oneOf(['json', 'tsv']), description: 'as a table with tabs between its columns: tsv' })
		}),
		status: 200,
		answer: ItemReportAnswer
	}
] as const satisfies readonly Operation[];
