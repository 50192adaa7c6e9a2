// The JSON API's documents part, operation by operation: the schemas that its requests are checked by, and that openapi.json is made from.
import { Type, type TObject, type TSchema } from '@sinclair/typebox';
import { Line } from '#core/text/line';
import { positions, TurnedAwayGiven } from '#core/access/door';
import { filterNames, filterValues, orderNames } from '#core/documents/filters';
import { dayOrders } from '#core/people/csv';
import { KeyGiven, KeysMailed } from '../access/keys';
import { KnockAnswer } from '../access/knocks';
import { BulkChange, DocumentChange } from '../documents/change';
import { conditionWords } from '#core/intake/condition';
import { TokenGiven } from '../people/tokens';
import { GroupChange, GroupGiven, MemberChange, MemberGiven } from '../people/members';
import { standings } from '../people/service';
import { scopes } from '#core/people/scope';
import { lengths, steps } from '#core/readership/period';
import { ReadingSettings } from '#core/reading/settings';
import { languages } from '#core/words/words';
import { layouts } from '#core/placing/content';
import { Publishing } from '../placing/json';
import { Mend } from '../placing/mismatches';
import { LedgerQuery } from '../readership/query';
import { Reminding } from '../readership/remind';
import { Telling } from '../readership/told';
import { WebhookGiven } from '../readership/webhooks';
import { PageChange, PageGiven } from '../placing/service';
import { SiteChange } from '../site/site';

const Instant = Type.String({ format: 'date-time', description: 'RFC 3339, UTC' });
const Sha256 = Type.String({ pattern: '^[0-9a-f]{64}$' });
const nullable = <T extends TSchema>(schema: T) => Type.Union([schema, Type.Null()]);
const oneOf = (values: readonly string[]) => Type.Union(values.map((v) => Type.Literal(v)));
const statuses = Object.keys(conditionWords);

const Condition = Type.Object({ status: oneOf(statuses), findings: Type.Array(Type.Object({ code: Type.String(), text: Type.String() })) });

export const EditionAnswer = Type.Object({
	number: Type.Integer({ minimum: 1 }),
	at: Instant,
	sha256: Sha256,
	bytes: Type.Integer(),
	pages: Type.Integer({ minimum: 0 }),
	fileName: Type.String(),
	origin: oneOf(['upload', 'web', 'cleaned', 'unlocked']),
	condition: oneOf(statuses),
	inForce: Type.Boolean()
});

const DoorAnswer = Type.Object({
	position: oneOf(positions),
	allMembers: Type.Boolean(),
	groups: Type.Array(Type.String()),
	people: Type.Array(Type.String()),
	follows: nullable(Type.String()),
	from: nullable(Type.String()),
	until: nullable(Type.String()),
	allow: Type.Object({ save: Type.Boolean(), print: Type.Boolean() }),
	listed: Type.Boolean(),
	turnedAway: nullable(TurnedAwayGiven),
	stamped: Type.Boolean({ description: 'saved copies carry a name' }),
	sentence: Type.String(),
	count: Type.Integer()
});

/** The time of a report: bounds are days (both included) or instants. */
const Time = Type.Object({
	from: Type.Optional(Type.String()),
	until: Type.Optional(Type.String()),
	days: Type.Optional(oneOf(lengths.map(String))),
	by: Type.Optional(oneOf(steps))
});
const Entries = Type.Object({ items: Type.Array(Type.Any()), next: nullable(Type.String()) });
const Report = Type.Object({
	period: Type.Any(),
	whole: Type.Literal(true),
	answer: Type.Array(Type.Object({ text: Type.String(), tone: Type.Optional(oneOf(['strong', 'wrong'])) })),
	figures: Type.Record(Type.String(), Type.Number()),
	bars: Type.Array(Type.Object({ day: Type.String(), openings: Type.Integer(), saves: Type.Integer(), before: Type.Integer() }))
});
const Lines = Type.Object({ period: Type.Any(), whole: Type.Literal(true), items: Type.Array(Type.Any()) });

export const DocumentAnswer = Type.Object({
	id: Type.String({ format: 'uuid' }),
	slug: Type.String(),
	title: Type.String(),
	description: Type.String(),
	folder: Type.String(),
	topics: Type.Array(Type.String()),
	language: nullable(Type.String()),
	coverAlt: Type.String(),
	reading: nullable(ReadingSettings),
	condition: Condition,
	pages: Type.Integer({ minimum: 0 }),
	bytes: Type.Integer({ minimum: 0 }),
	sha256: Sha256,
	fileName: Type.String(),
	facts: Type.Object({ version: Type.String(), paper: Type.String(), text: oneOf(['yes', 'partly', 'no']), encrypted: Type.Boolean() }),
	editions: Type.Array(EditionAnswer),
	addresses: Type.Array(Type.String()),
	door: DoorAnswer,
	placements: Type.Array(Type.Object({ id: Type.String(), page: Type.String(), form: Type.String(), press: Type.String(), published: Type.Boolean() })),
	createdAt: Instant,
	setAsideAt: nullable(Instant)
});

const LineAnswer = Type.Object({
	id: Type.String({ format: 'uuid' }),
	slug: Type.String(),
	title: Type.String(),
	folder: Type.String(),
	topics: Type.Array(Type.String()),
	pages: Type.Integer(),
	bytes: Type.Integer(),
	sha256: Sha256,
	condition: Condition,
	door: Type.Object({ position: oneOf(positions), who: Type.String(), sentence: Type.String(), count: Type.Integer() })
});

const Stretches = Type.Array(Type.Object({ text: Type.String(), marked: Type.Boolean() }));
const FindAnswer = Type.Object({
	items: Type.Array(
		Type.Object({
			slug: Type.String(),
			title: Type.String(),
			pages: nullable(Type.Integer({ description: 'pages with all the words; null where more than 1,000 documents fit' })),
			hits: Type.Array(Type.Object({ page: Type.Integer({ minimum: 1 }), text: Type.String(), stretches: Stretches }))
		})
	),
	next: nullable(Type.String()),
	total: Type.Integer()
});

const Cursor = Type.Optional(Type.String({ pattern: '^\\d{1,9}$' }));
const Limit = Type.Optional(Type.Integer({ minimum: 1, maximum: 200 }));
const several = (values: readonly string[] | null) => Type.Optional(Type.Array(values ? oneOf(values) : Type.String({ maxLength: 200 }), { maxItems: 50 }));

export const ListQuery = Type.Object(
	{
		q: Type.Optional(Type.String({ maxLength: 300 })),
		...Object.fromEntries(filterNames.map((name) => [name, several(filterValues[name])])),
		order: Type.Optional(Type.String({ pattern: `^-?(${orderNames.join('|')}|newest)$` })),
		aside: Type.Optional(Type.Boolean()),
		cursor: Cursor,
		limit: Limit
	},
	{ additionalProperties: false }
);
export const FindQuery = Type.Object({ q: Type.String({ minLength: 1, maxLength: 300 }), cursor: Cursor, limit: Limit }, { additionalProperties: false });
export const KnownQuery = Type.Object({ sha256: Sha256 }, { additionalProperties: false });
export const LabelChange = Type.Object({ from: Type.String({ maxLength: 200 }), to: Type.String({ maxLength: 200 }) }, { additionalProperties: false });
export const UnlockBody = Type.Object({ password: Type.String({ minLength: 1, maxLength: 300 }) }, { additionalProperties: false });
export const IconBody = Type.Object({ icon: Type.String({ minLength: 1, maxLength: 80 }) }, { additionalProperties: false });
export const FromWeb = Type.Object(
	{
		url: Type.String({ minLength: 8, maxLength: 2000 }),
		title: Type.Optional(Type.String({ maxLength: 200 })),
		folder: Type.Optional(Type.String({ maxLength: 200 })),
		watch: Type.Optional(Type.Boolean())
	},
	{ additionalProperties: false }
);
export const WatchChange = Type.Object({ watch: Type.Boolean() }, { additionalProperties: false });
export const SourceAction = Type.Object({ do: oneOf(['compare', 'take', 'leave']) }, { additionalProperties: false });
export const SavedFilterBody = Type.Object({ name: Line(80), query: Type.String({ maxLength: 4000 }) }, { additionalProperties: false });
export const UndoBody = Type.Object({ undo: Type.Array(Type.Object({ slug: Type.String(), change: DocumentChange, aside: Type.Optional(Type.Boolean()) })) });
const BulkAnswer = Type.Composite([
	UndoBody,
	Type.Object({
		asks: Type.Optional(
			Type.Array(
				Type.Object({
					document: Type.String(),
					documentTitle: Type.String(),
					page: Type.String(),
					pageTitle: Type.String(),
					front: Type.Boolean(),
					placement: Type.String(),
					form: Type.String()
				}),
				{ description: 'places that would break; nothing was done' }
			)
		)
	})
]);
export const IntakeStop = Type.Object({ stop: Type.Array(Type.String({ format: 'uuid' }), { minItems: 1, maxItems: 1000 }) }, { additionalProperties: false });

const Labels = Type.Object({ items: Type.Array(Type.Object({ name: Type.String(), count: Type.Integer() })), next: Type.Null() });
const IntakeAnswer = Type.Object({
	items: Type.Array(
		Type.Object({
			id: Type.String({ format: 'uuid' }),
			name: Type.String(),
			bytes: Type.Integer(),
			state: oneOf(['uploading', 'checking', 'in', 'refused', 'stopped']),
			arrived: Type.Integer({ description: 'bytes here' }),
			trouble: nullable(Type.Object({ code: Type.String(), text: Type.String() })),
			document: nullable(Type.Object({ slug: Type.String(), title: Type.String(), condition: oneOf(statuses) })),
			edition: Type.Boolean(),
			at: Instant
		})
	),
	next: Type.Null()
});
const Compared = Type.Object({
	before: EditionAnswer,
	after: EditionAnswer,
	added: Type.Integer(),
	removed: Type.Integer(),
	whole: Type.Boolean(),
	pages: Type.Array(
		Type.Object({
			kind: oneOf(['same', 'changed', 'added', 'removed']),
			before: nullable(Type.Integer()),
			after: nullable(Type.Integer()),
			parts: Type.Array(Type.Object({ text: Type.String(), kind: oneOf(['same', 'added', 'removed']) }))
		})
	)
});

export const DecisionQuery = Type.Object({
	as: Type.String({
		pattern: '^(visitor|member:.+|group:.+|key:[0-9a-f-]{36})$',
		maxLength: 340,
		description: 'visitor, member:<email>, group:<slug> or key:<id>'
	}),
	action: Type.Optional(Type.Union(['see', 'read', 'save', 'print'].map((a) => Type.Literal(a as 'see')))),
	at: Type.Optional(Instant)
});
const Decided = Type.Object({
	allowed: Type.Boolean(),
	reasons: Type.Array(Type.Object({ code: Type.String(), group: Type.Optional(Type.String()), key: Type.Optional(Type.String()), at: Type.Optional(Instant) })),
	changesAt: nullable(Instant)
});
const KeyAnswer = Type.Object({
	id: Type.String(),
	label: Type.String(),
	allow: Type.Object({ save: Type.Boolean(), print: Type.Boolean() }),
	until: nullable(Type.String()),
	openings: nullable(Type.Integer()),
	used: Type.Integer(),
	saves: Type.Integer(),
	lastUsedAt: nullable(Instant),
	password: Type.Boolean(),
	createdAt: Instant,
	createdBy: nullable(Type.String()),
	withdrawnAt: nullable(Instant),
	state: oneOf(['good', 'withdrawn', 'lapsed', 'used-up'])
});

export const MembersQuery = Type.Object(
	{
		q: Type.Optional(Type.String({ maxLength: 200 })),
		group: Type.Optional(Type.String({ maxLength: 120 })),
		standing: Type.Optional(Type.Union(standings.map((st) => Type.Literal(st)))),
		cursor: Cursor,
		limit: Limit
	},
	{ additionalProperties: false }
);
/** Beside it `preview`, and the columns by their meanings, counted from 0: `email=0&name=1`. */
export const TableQuery = Type.Object({
	dayOrder: Type.Optional(Type.Union(dayOrders.map((d) => Type.Literal(d)))),
	makeGroups: Type.Optional(Type.Boolean())
});
const MemberAnswer = Type.Object({
	id: Type.String({ format: 'uuid' }),
	name: Type.String(),
	email: Type.String(),
	suspended: Type.Boolean(),
	memberships: Type.Array(
		Type.Object({
			group: Type.String(),
			name: Type.String(),
			from: nullable(Type.String({ format: 'date' })),
			until: nullable(Type.String({ format: 'date' }))
		})
	),
	password: Type.Boolean(),
	createdAt: Instant,
	seenAt: nullable(Instant)
});
const GroupAnswer = Type.Object({
	id: Type.String({ format: 'uuid' }),
	slug: Type.String(),
	name: Type.String(),
	description: Type.String(),
	people: Type.Integer({ description: 'current today' })
});
const TableAnswer = Type.Object({
	added: Type.Integer(),
	changed: Type.Integer(),
	same: Type.Integer(),
	wrong: Type.Integer(),
	newGroups: Type.Array(Type.String()),
	endless: Type.Integer({ description: 'memberships that have an end and would have none' }),
	lines: Type.Array(Type.Any(), { description: 'at most 500, those that are wrong first' }),
	header: Type.Array(Type.String()),
	encoding: Type.String(),
	mapping: Type.Record(Type.String(), Type.Integer()),
	dayOrder: oneOf(dayOrders),
	done: Type.Boolean()
});

export interface Operation {
	readonly method: 'get' | 'post' | 'patch' | 'delete';
	readonly path: string;
	readonly words: string;
	readonly query?: TSchema;
	readonly body?: TSchema;
	/** Fields of a multipart form, beside `file`. */
	readonly form?: readonly string[];
	/** The body is a table. */
	readonly csv?: boolean;
	readonly status: number;
	readonly answer: TSchema | null;
}

const PageAnswer = Type.Object({
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
	door: Type.Any()
});
const IntervalAnswer = Type.Object({
	from: Instant,
	until: nullable(Instant),
	words: Type.String(),
	people: Type.Integer(),
	of: Type.Integer(),
	anyone: Type.Boolean()
});
const MismatchAnswer = Type.Object({
	kind: oneOf(['dead-end', 'side-door']),
	page: Type.String({ description: 'its path' }),
	pageTitle: Type.String(),
	document: Type.String({ description: 'its slug' }),
	documentTitle: Type.String(),
	placement: Type.String(),
	from: Instant,
	audience: Type.Object({
		words: Type.String(),
		people: Type.Integer({ description: 'of today; 0 where anyone is meant' }),
		of: Type.Integer(),
		anyone: Type.Boolean()
	}),
	intervals: Type.Array(IntervalAnswer),
	remedies: Type.Array(Mend.properties.remedy),
	intended: nullable(Type.Object({ why: Type.String(), by: nullable(Type.String()), at: Instant }))
});
const MismatchQuery = Type.Object({
	page: Type.Optional(Type.String({ description: 'a path' })),
	document: Type.Optional(Type.String()),
	draft: Type.Optional(Type.String({ description: 'as the drafts have it, published or not' })),
	cursor: Type.Optional(Type.String())
});

const Nothing = Type.Object({ ok: Type.Literal(true) });
const path = '/pages/{path}';
const slug = '/documents/{slug}';

/** An answer with what puts back what a change replaced. */
const withBefore = (answer: TObject, change: TSchema) => Type.Object({ ...answer.properties, before: change });

/** Every operation; a test compares them with the routes there are. */
export const operations: readonly Operation[] = [
	{
		method: 'get',
		path: '/documents',
		words: 'Lists documents; filters may be given several times',
		query: ListQuery,
		status: 200,
		answer: Type.Object({ items: Type.Array(LineAnswer), next: nullable(Type.String()), counts: Type.Object({ total: Type.Integer(), all: Type.Integer() }) })
	},
	{ method: 'post', path: '/documents', words: 'Brings a PDF in', form: ['title', 'folder'], status: 201, answer: DocumentAnswer },
	{ method: 'get', path: slug, words: 'One document', status: 200, answer: DocumentAnswer },
	{
		method: 'patch',
		path: slug,
		words: 'Changes a document and its door',
		body: DocumentChange,
		status: 200,
		answer: withBefore(DocumentAnswer, DocumentChange)
	},
	{ method: 'delete', path: slug, words: 'Sets a document aside for 30 days', status: 200, answer: Nothing },
	{ method: 'post', path: `${slug}/restore`, words: 'Brings back what was set aside', status: 200, answer: DocumentAnswer },
	{ method: 'post', path: `${slug}/editions`, words: 'Puts in a new edition', form: [], status: 201, answer: DocumentAnswer },
	{
		method: 'get',
		path: `${slug}/editions/compare`,
		words: 'What changed between two editions, page by page',
		query: Type.Object({ before: Type.Integer({ minimum: 1 }), after: Type.Integer({ minimum: 1 }) }),
		status: 200,
		answer: Compared
	},
	{ method: 'get', path: `${slug}/decision`, words: 'What somebody would get at the door, and why', query: DecisionQuery, status: 200, answer: Decided },
	{
		method: 'get',
		path: `${slug}/keys`,
		words: 'The keys of a document with what each did',
		status: 200,
		answer: Type.Object({ items: Type.Array(KeyAnswer), next: Type.Null() })
	},
	{
		method: 'post',
		path: `${slug}/keys`,
		words: 'Issues a key; its address is given once',
		body: KeyGiven,
		status: 201,
		answer: Type.Object({ id: Type.String(), url: Type.String() })
	},
	{
		method: 'post',
		path: `${slug}/keys/mail`,
		words: 'Issues a key for each of a list of addresses, and mails them',
		body: KeysMailed,
		status: 201,
		answer: Type.Object({
			items: Type.Array(Type.Object({ address: Type.String(), id: Type.String(), mailed: Type.Boolean(), url: nullable(Type.String()) })),
			next: Type.Null()
		})
	},
	{
		method: 'get',
		path: '/knocks',
		words: 'Knocks, those that wait first',
		status: 200,
		answer: Type.Object({ items: Type.Array(Type.Any()), next: Type.Null() })
	},
	{
		method: 'post',
		path: '/knocks/{id}/answer',
		words: 'Lets somebody in by a group or a key, or declines; mail goes out either way',
		body: KnockAnswer,
		status: 200,
		answer: Type.Object({ mailed: Type.Boolean() })
	},
	{ method: 'delete', path: '/keys/{id}', words: 'Withdraws a key', status: 200, answer: Nothing },
	{ method: 'post', path: `${slug}/clean`, words: 'Makes an edition without active content', status: 201, answer: DocumentAnswer },
	{ method: 'post', path: `${slug}/unlock`, words: 'Gives the password of a locked file, once', body: UnlockBody, status: 201, answer: DocumentAnswer },
	{
		method: 'post',
		path: `${slug}/cover`,
		words: 'Sets the cover to a picture (multipart) or an icon (JSON)',
		body: IconBody,
		form: [],
		status: 200,
		answer: DocumentAnswer
	},
	{ method: 'patch', path: `${slug}/source`, words: 'Watches the web address or stops watching', body: WatchChange, status: 200, answer: DocumentAnswer },
	{
		method: 'post',
		path: `${slug}/source`,
		words: 'Compares with the web address now, takes the changed file as a new edition, or leaves it alone',
		body: SourceAction,
		status: 200,
		answer: DocumentAnswer
	},
	{
		method: 'get',
		path: `${slug}/ledger`,
		words: 'Entries of the ledger',
		query: LedgerQuery,
		status: 200,
		answer: Entries
	},
	{
		method: 'post',
		path: `${slug}/remind`,
		words: 'Reminds those who may open it and have not, each at most once a day',
		body: Reminding,
		status: 200,
		answer: Type.Object({ mailed: Type.Integer(), recently: Type.Integer(), failed: Type.Integer() })
	},
	{
		method: 'patch',
		path: '/readership/told',
		words: 'What you are told by mail',
		body: Telling,
		status: 200,
		answer: Type.Object({ every: Type.Any(), waiting: Type.Array(Type.String()) })
	},
	{ method: 'get', path: '/webhooks', words: 'Programs that are told what happens', status: 200, answer: Entries },
	{
		method: 'post',
		path: '/webhooks',
		words: 'Tells a program; its secret is given this once',
		body: WebhookGiven,
		status: 201,
		answer: Type.Object({ id: Type.String(), secret: Type.String() })
	},
	{ method: 'post', path: '/webhooks/{id}', words: 'Sends what failed again', status: 200, answer: Nothing },
	{ method: 'delete', path: '/webhooks/{id}', words: 'Withdraws a webhook', status: 200, answer: Nothing },
	{ method: 'get', path: '/ledger', words: 'Entries of the ledger of all documents', query: LedgerQuery, status: 200, answer: Entries },
	{ method: 'get', path: '/readership/overview', words: 'Readership of the whole site', query: Time, status: 200, answer: Report },
	{ method: 'get', path: '/readership/documents/{slug}', words: 'Readership of a document', query: Time, status: 200, answer: Report },
	{ method: 'get', path: '/readership/members/{id}', words: 'What a member read', query: Time, status: 200, answer: Report },
	{ method: 'get', path: '/readership/places', words: 'What became of each placement and on other websites', query: Time, status: 200, answer: Lines },
	{ method: 'get', path: '/readership/live', words: 'Entries as they happen (server-sent events)', status: 200, answer: null },
	{ method: 'get', path: '/readership/turned-away', words: 'Who was turned away, why, how often', query: Time, status: 200, answer: Lines },
	{
		method: 'get',
		path: '/readership/items',
		words: 'Use of documents by month (JSON; as a table with format=tsv)',
		query: Time,
		status: 200,
		answer: Type.Any()
	},
	{
		method: 'get',
		path: `${slug}/reach`,
		words: 'Who may open it, as a sentence',
		status: 200,
		answer: Type.Object({ sentence: Type.String(), people: Type.Any(), anyone: Type.Boolean() })
	},
	{ method: 'post', path: '/from-web', words: 'Fetches a PDF from a web address', body: FromWeb, status: 201, answer: DocumentAnswer },
	{ method: 'post', path: '/bulk', words: 'One change to many documents', body: BulkChange, status: 200, answer: BulkAnswer },
	{ method: 'post', path: '/bulk/undo', words: 'Puts many documents back', body: UndoBody, status: 200, answer: Nothing },
	{ method: 'get', path: '/find', words: 'Finds documents by words in titles and on pages', query: FindQuery, status: 200, answer: FindAnswer },
	{ method: 'get', path: '/folders', words: 'Folders with how many documents stand in each', status: 200, answer: Labels },
	{ method: 'patch', path: '/folders', words: 'Renames a folder', body: LabelChange, status: 200, answer: Type.Object({ changed: Type.Integer() }) },
	{ method: 'get', path: '/topics', words: 'Topics with how many documents carry each', status: 200, answer: Labels },
	{
		method: 'patch',
		path: '/topics',
		words: 'Renames a topic; to nothing takes it away',
		body: LabelChange,
		status: 200,
		answer: Type.Object({ changed: Type.Integer() })
	},
	{ method: 'get', path: '/intake', words: 'Files on their way in', status: 200, answer: IntakeAnswer },
	{ method: 'patch', path: '/intake', words: 'Stops files on their way', body: IntakeStop, status: 200, answer: Nothing },
	{ method: 'post', path: '/intake', words: 'Begins an upload by the tus protocol 1.0', status: 201, answer: null },
	{ method: 'patch', path: '/intake/{id}', words: 'Sends bytes of an upload (tus 1.0)', status: 204, answer: null },
	{ method: 'delete', path: '/intake/{id}', words: 'Ends an upload (tus 1.0)', status: 204, answer: null },
	{ method: 'delete', path: '/intake', words: 'Takes what is finished out of the tray', status: 200, answer: Nothing },
	{
		method: 'get',
		path: '/intake/known',
		words: 'Documents with the same bytes',
		query: KnownQuery,
		status: 200,
		answer: Type.Object({ items: Type.Array(Type.Object({ slug: Type.String(), title: Type.String(), inForce: Type.Boolean() })), next: Type.Null() })
	},
	{
		method: 'get',
		path: '/icons',
		words: 'Icons for covers, by a word',
		query: Type.Object({ q: Type.String({ maxLength: 80 }) }),
		status: 200,
		answer: Type.Object({ items: Type.Array(Type.Object({ name: Type.String(), svg: Type.String() })), next: Type.Null() })
	},
	{
		method: 'get',
		path: '/filters',
		words: 'Your saved filters',
		status: 200,
		answer: Type.Object({ items: Type.Array(Type.Object({ id: Type.String(), name: Type.String(), query: Type.String() })), next: Type.Null() })
	},
	{
		method: 'post',
		path: '/filters',
		words: 'Saves a filter',
		body: SavedFilterBody,
		status: 201,
		answer: Type.Object({ id: Type.String(), name: Type.String(), query: Type.String() })
	},
	{ method: 'delete', path: '/filters/{id}', words: 'Takes a saved filter away', status: 200, answer: Nothing },
	{
		method: 'get',
		path: '/tokens',
		words: 'Your tokens for programs',
		status: 200,
		answer: Type.Object({
			items: Type.Array(
				Type.Object({
					id: Type.String(),
					label: Type.String(),
					scopes: Type.Array(oneOf(scopes)),
					folders: nullable(Type.Array(Type.String())),
					until: Type.String({ format: 'date' }),
					createdAt: Instant,
					usedAt: nullable(Instant),
					withdrawnAt: nullable(Instant)
				})
			),
			next: Type.Null()
		})
	},
	{
		method: 'post',
		path: '/tokens',
		words: 'Makes a token; shown this once',
		body: TokenGiven,
		status: 201,
		answer: Type.Object({ id: Type.String(), label: Type.String(), token: Type.String(), until: Type.String({ format: 'date' }) })
	},
	{ method: 'delete', path: '/tokens/{id}', words: 'Withdraws a token', status: 200, answer: Nothing },
	{ method: 'get', path: '/groups', words: 'Groups of members', status: 200, answer: Type.Object({ items: Type.Array(GroupAnswer), next: Type.Null() }) },
	{ method: 'post', path: '/groups', words: 'Makes a group', body: GroupGiven, status: 201, answer: GroupAnswer },
	{ method: 'get', path: '/groups/{slug}', words: 'One group', status: 200, answer: GroupAnswer },
	{ method: 'patch', path: '/groups/{slug}', words: 'Changes a group', body: GroupChange, status: 200, answer: withBefore(GroupAnswer, GroupChange) },
	{ method: 'delete', path: '/groups/{slug}', words: 'Takes a group and its memberships away', status: 200, answer: Nothing },
	{
		method: 'get',
		path: '/members',
		words: 'Lists members',
		query: MembersQuery,
		status: 200,
		answer: Type.Object({ items: Type.Array(MemberAnswer), next: nullable(Type.String()), total: Type.Integer() })
	},
	{ method: 'post', path: '/members', words: 'Adds a member', body: MemberGiven, status: 201, answer: MemberAnswer },
	{ method: 'get', path: '/members/{id}', words: 'One member', status: 200, answer: MemberAnswer },
	{
		method: 'patch',
		path: '/members/{id}',
		words: 'Changes a member; memberships stand for all of them',
		body: MemberChange,
		status: 200,
		answer: withBefore(MemberAnswer, MemberChange)
	},
	{ method: 'delete', path: '/members/{id}', words: 'Takes a member out', status: 200, answer: Nothing },
	{
		method: 'post',
		path: '/members/{id}/invite',
		words: 'Mails a member the address at which they choose a password',
		status: 201,
		answer: Type.Object({ address: nullable(Type.String({ description: 'for owners, where no mail is set up' })), mailed: Type.Boolean() })
	},
	{
		method: 'post',
		path: '/members/import',
		words: 'Members from a table (text/csv): ?preview tells what it would change',
		query: TableQuery,
		csv: true,
		status: 200,
		answer: TableAnswer
	},
	{ method: 'get', path: '/pages', words: 'The pages of the site', status: 200, answer: Type.Object({ items: Type.Array(Type.Any()), next: Type.Null() }) },
	{ method: 'post', path: '/pages', words: 'Makes a page; it is a draft until published', body: PageGiven, status: 201, answer: PageAnswer },
	{ method: 'get', path, words: 'One page with its draft; the front page is %2F', status: 200, answer: PageAnswer },
	{ method: 'patch', path, words: 'Changes the draft of a page, and its door at once', body: PageChange, status: 200, answer: PageAnswer },
	{ method: 'delete', path, words: 'Sets a page aside', status: 200, answer: Nothing },
	{ method: 'post', path: `${path}/restore`, words: 'Brings back a page that was set aside', status: 200, answer: PageAnswer },
	{
		method: 'post',
		path: `${path}/publish`,
		words: 'Publishes the draft, now or at an instant, or takes the page down',
		body: Publishing,
		status: 200,
		answer: Type.Composite([PageAnswer, Type.Object({ deadEnds: Type.Integer() })])
	},
	{
		method: 'get',
		path: `${path}/revisions`,
		words: 'Published revisions, the newest first',
		status: 200,
		answer: Type.Object({ items: Type.Array(Type.Any()), next: Type.Null() })
	},
	{
		method: 'post',
		path: `${path}/revisions`,
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
	{ method: 'post', path: '/mismatches', words: 'Mends a dead end or a side door', body: Mend, status: 200, answer: Type.Object({ before: Type.Any() }) },
	{
		method: 'patch',
		path: '/navigation',
		words: 'Orders the navigation',
		body: Type.Object({ paths: Type.Array(Type.String()) }),
		status: 200,
		answer: withBefore(Nothing, Type.Object({ paths: Type.Array(Type.String()) }))
	},
	{
		method: 'post',
		path: '/pictures',
		words: 'Keeps a picture for pages or the site’s mark',
		form: [],
		status: 201,
		answer: Type.Object({ picture: Sha256, width: Type.Integer(), height: Type.Integer() })
	},
	{ method: 'get', path: '/site', words: 'The site’s settings', status: 200, answer: Type.Any() },
	{ method: 'patch', path: '/site', words: 'Changes the site’s settings; for its owners', body: SiteChange, status: 200, answer: Type.Any() },
	{ method: 'get', path: '/openapi.json', words: 'This description', status: 200, answer: Type.Any() }
];

const Problem = Type.Object(
	{
		type: Type.String(),
		title: Type.String({ description: 'a sentence for a person' }),
		status: Type.Integer(),
		code: Type.String({ description: 'the catalogue’s code' }),
		facts: Type.Optional(Type.Record(Type.String(), Type.String())),
		requestId: Type.Optional(Type.String())
	},
	{ description: 'RFC 9457' }
);

/** The OpenAPI 3.1 description of the operations (its schemas are JSON Schema as they are). */
export function openApi(origin: string) {
	const paths: Record<string, Record<string, unknown>> = {};
	for (const o of operations) {
		const names = [...o.path.matchAll(/\{(\w+)\}/g)].map((m) => m[1]!);
		const query = (o.query as { properties?: Record<string, TSchema>; required?: string[] } | undefined) ?? {};
		const content: Record<string, unknown> = {};
		if (o.body) content['application/json'] = { schema: o.body };
		if (o.csv) content['text/csv'] = { schema: { type: 'string' } };
		if (o.form)
			content['multipart/form-data'] = {
				schema: {
					type: 'object',
					required: ['file'],
					properties: { file: { type: 'string', format: 'binary' }, ...Object.fromEntries(o.form.map((f) => [f, { type: 'string' }])) }
				}
			};
		(paths[o.path] ??= {})[o.method] = {
			summary: o.words,
			operationId: `${o.method}${o.path.replace(/[{}]/g, '').replace(/[/.-](\w)/g, (_, c: string) => c.toUpperCase())}`,
			parameters: [
				...names.map((name) => ({ name, in: 'path', required: true, schema: { type: 'string' } })),
				...Object.entries(query.properties ?? {}).map(([name, schema]) => ({ name, in: 'query', required: query.required?.includes(name) ?? false, schema }))
			],
			...(Object.keys(content).length ? { requestBody: { required: true, content } } : {}),
			responses: {
				[o.status]: { description: o.words, ...(o.answer ? { content: { 'application/json': { schema: o.answer } } } : {}) },
				default: { description: 'What was wrong, in words', content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } } }
			}
		};
	}
	return {
		openapi: '3.1.0',
		info: { title: 'Ianua', version: '1', description: 'Documents, editions, folders, topics, find, intake, doors, keys, groups and members.' },
		servers: [{ url: `${origin}/api/v1` }],
		security: [{ bearer: [] }, { session: [] }],
		paths,
		components: {
			schemas: { Problem },
			securitySchemes: { bearer: { type: 'http', scheme: 'bearer' }, session: { type: 'apiKey', in: 'cookie', name: 'ianua.session_token' } }
		}
	};
}
