// The API of documents, editions, the room and find: each operation with what it takes and gives. Requests are checked by these schemas, and openapi.json is made of them.
import { Type } from '@sinclair/typebox';
import { positions } from '#core/access/door';
import { editionOrigins } from '#core/documents/edition';
import { filterNames, filterValues, orderNames, type FilterName } from '#core/documents/filters';
import { conditionWords, type ConditionStatus } from '#core/intake/condition';
import { ReadingSettings } from '#core/reading/settings';
import { receiptAsks } from '#core/readership/receipt';
import { Line } from '#core/text/line';
import { DoorAnswer } from '../access/contract';
import {
	Cursor,
	documentPath,
	Instant,
	Limit,
	listInParts,
	listOf,
	Nothing,
	nullable,
	oneOf,
	type Operation,
	several,
	Sha256,
	withBefore
} from '../http/contract';
import { PlaceAnswer } from '../placing/contract';
import { Elsewhere } from '../readership/elsewhere';
import { BulkChange, DocumentChange } from './change';

export const statuses = Object.keys(conditionWords) as ConditionStatus[];

export const Condition = Type.Object({ status: oneOf(statuses), findings: Type.Array(Type.Object({ code: Type.String(), text: Type.String() })) });

export const EditionAnswer = Type.Object({
	number: Type.Integer({ minimum: 1 }),
	at: Instant,
	sha256: Sha256,
	bytes: Type.Integer(),
	pages: Type.Integer({ minimum: 0 }),
	fileName: Type.String(),
	origin: oneOf(editionOrigins),
	condition: oneOf(statuses),
	inForce: Type.Boolean()
});

export const DocumentAnswer = Type.Object({
	id: Type.String({ format: 'uuid' }),
	slug: Type.String(),
	title: Type.String(),
	description: Type.String(),
	folder: Type.String(),
	topics: Type.Array(Type.String()),
	fields: Type.Record(Type.String(), Type.Union([Type.String(), Type.Number()]), { description: 'what it says in the site’s fields, by their names' }),
	review: nullable(Type.Object({ on: Type.String({ format: 'date' }), by: nullable(Type.String()) })),
	receipt: nullable(oneOf(receiptAsks, { description: 'when members who read it are asked to say so; null asks nobody' })),
	language: nullable(Type.String()),
	cover: nullable(
		Type.Object({
			kind: oneOf(['page', 'picture', 'icon']),
			page: Type.Optional(Type.Integer()),
			name: Type.Optional(Type.String()),
			sha256: Type.Optional(Sha256)
		})
	),
	coverAlt: Type.String(),
	reading: nullable(ReadingSettings),
	condition: Condition,
	pages: Type.Integer({ minimum: 0 }),
	bytes: Type.Integer({ minimum: 0 }),
	sha256: Sha256,
	fileName: Type.String(),
	facts: Type.Object(
		{ version: Type.String(), paper: Type.String(), text: oneOf(['yes', 'partly', 'no']), encrypted: Type.Boolean() },
		{ additionalProperties: true, description: 'what else the check read of the file stands here too' }
	),
	editions: Type.Array(EditionAnswer),
	source: nullable(
		Type.Object({
			url: Type.String(),
			watch: Type.Boolean(),
			state: oneOf(['same', 'changed', 'gone', 'unreachable']),
			note: Type.String(),
			checkedAt: Instant,
			beside: nullable(Type.Integer({ description: 'number of the edition that the changed file became, beside the one in force' }))
		})
	),
	addresses: Type.Array(Type.String()),
	door: DoorAnswer,
	placements: Type.Array(Type.Object({ id: Type.String(), page: Type.String(), form: Type.String(), press: Type.String(), published: Type.Boolean() })),
	createdAt: Instant,
	setAsideAt: nullable(Instant)
});

export const LineAnswer = Type.Object({
	id: Type.String({ format: 'uuid' }),
	slug: Type.String(),
	title: Type.String(),
	folder: Type.String(),
	topics: Type.Array(Type.String()),
	language: nullable(Type.String()),
	pages: Type.Integer(),
	bytes: Type.Integer(),
	sha256: Sha256,
	edition: Type.Integer({ description: 'its number' }),
	createdAt: Instant,
	placements: Type.Integer(),
	condition: Condition,
	door: Type.Object({ position: oneOf(positions), who: Type.String(), sentence: Type.String(), count: Type.Integer() })
});

export const Stretches = Type.Array(Type.Object({ text: Type.String(), marked: Type.Boolean() }));

export const FindAnswer = listInParts(
	Type.Object({
		slug: Type.String(),
		title: Type.String(),
		pages: nullable(Type.Integer({ description: 'pages with all the words; null where more than 1,000 documents fit' })),
		hits: Type.Array(Type.Object({ page: Type.Integer({ minimum: 1 }), text: Type.String(), stretches: Stretches }))
	}),
	{ total: Type.Integer() }
);

/** What a filter of the list goes by. */
const filterMeanings: { readonly [N in FilterName]: string } = {
	folder: 'in the folder; several: in any of them',
	topic: 'carrying the topic',
	field: 'saying that in a field: `department:Works`; of one field any of them, of several each',
	door: 'the position of the door in force now',
	condition: 'the condition of the file',
	placed: 'standing on a published page, by itself or in a list, or on none',
	language: 'the language of its words, by BCP 47',
	pages: 'a band of how many pages it has',
	brought: 'brought in within that time; `older`: before the last year',
	by: 'brought in by that person of the staff, by id'
};

export const ListQuery = Type.Object(
	{
		q: Type.Optional(Type.String({ maxLength: 300, description: 'words to be found in titles, descriptions, topics and on pages' })),
		...Object.fromEntries(filterNames.map((name) => [name, several(filterValues[name], filterMeanings[name])])),
		order: Type.Optional(
			Type.String({ pattern: `^-?(${orderNames.join('|')}|newest)$`, description: 'what the list goes by; with a minus the other way round' })
		),
		aside: Type.Optional(Type.Boolean({ description: 'those set aside instead' })),
		cursor: Cursor,
		limit: Limit
	},
	{ additionalProperties: false }
);

export const FindQuery = Type.Object(
	{ q: Type.String({ minLength: 1, maxLength: 300, description: 'words to be found' }), cursor: Cursor, limit: Limit },
	{ additionalProperties: false }
);

export const LabelChange = Type.Object({ from: Type.String({ maxLength: 200 }), to: Type.String({ maxLength: 200 }) }, { additionalProperties: false });

export const SavedFilterBody = Type.Object({ name: Line(80), query: Type.String({ maxLength: 4000 }) }, { additionalProperties: false });

export const UndoBody = Type.Object({ undo: Type.Array(Type.Object({ slug: Type.String(), change: DocumentChange, aside: Type.Optional(Type.Boolean()) })) });

export const BulkAnswer = Type.Composite([
	UndoBody,
	Type.Object({
		asks: Type.Optional(Type.Array(PlaceAnswer, { description: 'places that would break; nothing was done' })),
		elsewhere: Type.Optional(
			Type.Array(Elsewhere, { description: 'other websites on which readers met them lately, who would be turned away; nothing was done' })
		)
	})
]);

export const FieldsTableAnswer = Type.Composite([
	UndoBody,
	Type.Object({
		changed: Type.Integer({ description: 'documents that change, or would' }),
		same: Type.Integer({ description: 'lines that say what is there already' }),
		wrong: Type.Array(Type.Object({ line: Type.Integer({ minimum: 1 }), words: Type.String() })),
		leftOut: Type.Array(Type.String(), { description: 'headings that are no field’s' }),
		done: Type.Boolean()
	})
]);

export const Labels = listOf(Type.Object({ name: Type.String(), count: Type.Integer() }));

export const Compared = Type.Object({
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

export const documentsOperations = [
	{
		method: 'get',
		path: '/documents',
		words: 'Lists documents; filters may be given several times',
		query: ListQuery,
		status: 200,
		answer: listInParts(LineAnswer, {
			counts: Type.Object({
				total: Type.Integer(),
				all: Type.Integer(),
				...Object.fromEntries(filterNames.map((name) => [name, Type.Record(Type.String(), Type.Integer())]))
			})
		})
	},
	{ method: 'post', path: '/documents', words: 'Brings a PDF in', form: ['title', 'folder'], status: 201, answer: DocumentAnswer },
	{ method: 'get', path: documentPath, words: 'One document', status: 200, answer: DocumentAnswer },
	{
		method: 'patch',
		path: documentPath,
		words: 'Changes a document and its door',
		body: DocumentChange,
		status: 200,
		answer: withBefore(DocumentAnswer, DocumentChange)
	},
	{ method: 'delete', path: documentPath, words: 'Sets a document aside for 30 days', status: 200, answer: Nothing },
	{ method: 'post', path: `${documentPath}/restore`, words: 'Brings back what was set aside', status: 200, answer: DocumentAnswer },
	{ method: 'post', path: `${documentPath}/editions`, words: 'Puts in a new edition', form: [], status: 201, answer: DocumentAnswer },
	{
		method: 'get',
		path: `${documentPath}/editions/compare`,
		words: 'What changed between two editions, page by page',
		query: Type.Object({
			before: Type.Integer({ minimum: 1, description: 'number of the earlier edition' }),
			after: Type.Integer({ minimum: 1, description: 'number of the later edition' })
		}),
		status: 200,
		answer: Compared
	},
	{
		method: 'post',
		path: '/fields',
		words: 'Fills fields from a table (text/csv), a line a document: ?preview tells what it would change; with a line that is wrong nothing changes',
		query: Type.Object({ preview: Type.Optional(Type.String({ description: 'only tells what it would change; anything but `false`' })) }),
		csv: true,
		status: 200,
		answer: FieldsTableAnswer
	},
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
	{
		method: 'get',
		path: '/filters',
		words: 'Your saved filters',
		status: 200,
		answer: listOf(Type.Object({ id: Type.String(), name: Type.String(), query: Type.String() }))
	},
	{
		method: 'post',
		path: '/filters',
		words: 'Saves a filter',
		body: SavedFilterBody,
		status: 201,
		answer: Type.Object({ id: Type.String(), name: Type.String(), query: Type.String() })
	},
	{ method: 'delete', path: '/filters/{id}', words: 'Takes a saved filter away', status: 200, answer: Nothing }
] as const satisfies readonly Operation[];
