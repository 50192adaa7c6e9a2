// The API of doors tried, keys and knocks: each operation with what it takes and gives. Requests are checked by these schemas, and openapi.json is made of them.
import { Type } from '@sinclair/typebox';
import { DoorShape } from '#core/access/door';
import { Cursor, documentPath, Instant, Limit, listInParts, listOf, Nothing, nullable, oneOf, type Operation } from '../http/contract';
import { KeyGiven, keyStates } from '#core/access/key';
import { KeysChange, KeysUndo } from './key-list';
import { KeysMailed, ManyKeysMailed } from './keys';
import { KnockAnswer } from './knocks';
import { WebsiteChange, WebsiteGiven, WebsiteKeyGiven, WebsiteView } from './websites';

/** A door as answers show it: every field, and what it comes to in words. */
export const DoorAnswer = Type.Object({
	...DoorShape.properties,
	sentence: Type.String(),
	count: Type.Integer({ description: 'people of today whom it admits by groups and names' })
});

export const DecisionQuery = Type.Object({
	as: Type.String({
		pattern: '^(visitor|member:.+|group:.+|key:[0-9a-f-]{36})$',
		maxLength: 340,
		description: 'visitor, member:<email>, group:<slug> or key:<id>'
	}),
	action: Type.Optional(
		Type.Union([Type.Literal('see'), Type.Literal('read'), Type.Literal('save'), Type.Literal('print')], {
			description: 'what they would do; read where nothing is said'
		})
	),
	at: Type.Optional({ ...Instant, description: 'when, RFC 3339; now where nothing is said' })
});

export const Decided = Type.Object({
	allowed: Type.Boolean(),
	reasons: Type.Array(Type.Object({ code: Type.String(), group: Type.Optional(Type.String()), key: Type.Optional(Type.String()), at: Type.Optional(Instant) })),
	changesAt: nullable(Instant)
});

export const KeyAnswer = Type.Object({
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
	state: oneOf(keyStates)
});

export const KeyListed = Type.Object({ ...KeyAnswer.properties, document: Type.Object({ slug: Type.String(), title: Type.String() }) });

export const KeysQuery = Type.Object(
	{
		q: Type.Optional(Type.String({ maxLength: 200, description: 'part of a label, of the address it was mailed to, or of the title of its document' })),
		state: Type.Optional(oneOf(keyStates, { description: 'good, or why they open nothing' })),
		document: Type.Optional(Type.String({ maxLength: 80, description: 'slug of the document that they are for' })),
		cursor: Cursor,
		limit: Limit
	},
	{ additionalProperties: false }
);

const Knock = Type.Object({
	id: Type.String({ format: 'uuid' }),
	at: Instant,
	email: Type.String(),
	words: Type.String(),
	reason: Type.String({ description: 'why they were turned away' }),
	document: Type.Object({ slug: Type.String(), title: Type.String() }),
	groups: Type.Array(Type.Object({ slug: Type.String(), name: Type.String() }), { description: 'that the door admits' }),
	person: nullable(Type.Object({ id: Type.String({ format: 'uuid' }), name: Type.String(), signedIn: Type.Boolean() })),
	answer: nullable(oneOf(['group', 'key', 'declined'])),
	answeredAt: nullable(Instant),
	answeredBy: nullable(Type.String())
});

export const accessOperations = [
	{
		method: 'get',
		path: `${documentPath}/decision`,
		words: 'What somebody would get at the door, and why',
		query: DecisionQuery,
		status: 200,
		answer: Decided
	},
	{
		method: 'get',
		path: `${documentPath}/keys`,
		words: 'The keys of a document with what each did',
		status: 200,
		answer: listOf(KeyAnswer)
	},
	{
		method: 'post',
		path: `${documentPath}/keys`,
		words: 'Issues a key; its address is given once',
		body: KeyGiven,
		status: 201,
		answer: Type.Object({ id: Type.String(), url: Type.String() })
	},
	{
		method: 'post',
		path: `${documentPath}/keys/mail`,
		words: 'Issues a key for each of a list of addresses, and mails them',
		body: KeysMailed,
		status: 201,
		answer: listOf(Type.Object({ address: Type.String(), id: Type.String(), mailed: Type.Boolean(), url: nullable(Type.String()) }))
	},
	{
		method: 'get',
		path: '/knocks',
		words: 'Knocks, those that wait first',
		status: 200,
		answer: listOf(Knock)
	},
	{
		method: 'post',
		path: '/knocks/{id}/answer',
		words: 'Lets somebody in by a group or a key, or declines; mail goes out either way',
		body: KnockAnswer,
		status: 200,
		answer: Type.Object({ mailed: Type.Boolean() })
	},
	{
		method: 'post',
		path: '/keys/mail',
		words: 'Issues keys for several documents for each of a list of addresses, and mails them, one mail an address',
		body: ManyKeysMailed,
		status: 201,
		answer: listOf(
			Type.Object({
				address: Type.String(),
				mailed: Type.Boolean(),
				keys: Type.Array(Type.Object({ document: Type.String(), id: Type.String(), url: nullable(Type.String()) }))
			})
		)
	},
	{
		method: 'get',
		path: '/websites',
		words: 'Websites that may give passes, with their keys and the groups that they may grant',
		status: 200,
		answer: listOf(WebsiteView)
	},
	{
		method: 'post',
		path: '/websites',
		words: 'Lets a website give passes; a secret is told this once',
		body: WebsiteGiven,
		status: 201,
		answer: Type.Object({ id: Type.String(), key: Type.String(), secret: nullable(Type.String()) })
	},
	{
		method: 'patch',
		path: '/websites/{id}',
		words: 'Says which groups a website may grant',
		body: WebsiteChange,
		status: 200,
		answer: Type.Object({ before: WebsiteChange })
	},
	{ method: 'delete', path: '/websites/{id}', words: 'Withdraws a website: its passes let nobody in any more', status: 200, answer: Nothing },
	{
		method: 'post',
		path: '/websites/{id}/keys',
		words: 'Gives a website a second key, to take the place of the first',
		body: WebsiteKeyGiven,
		status: 201,
		answer: Type.Object({ key: Type.String(), secret: nullable(Type.String()) })
	},
	{ method: 'delete', path: '/websites/{id}/keys/{key}', words: 'Withdraws a key of a website', status: 200, answer: Nothing },
	{
		method: 'get',
		path: '/keys',
		words: 'The keys of all documents, the newest first',
		query: KeysQuery,
		status: 200,
		answer: listInParts(KeyListed, { total: Type.Integer() })
	},
	{ method: 'post', path: '/keys/bulk', words: 'One change to many keys, all or none', body: KeysChange, status: 200, answer: KeysUndo },
	{ method: 'post', path: '/keys/bulk/undo', words: 'Puts many keys back', body: KeysUndo, status: 200, answer: Nothing },
	{ method: 'delete', path: '/keys/{id}', words: 'Withdraws a key', status: 200, answer: Nothing },
	{ method: 'post', path: '/keys/{id}/restore', words: 'Gives a key back that was withdrawn', status: 200, answer: Nothing },
	{
		method: 'get',
		path: `${documentPath}/reach`,
		words: 'Who may open it, as a sentence',
		status: 200,
		answer: Type.Object({ sentence: Type.String(), people: Type.Integer({ description: 'of today, by groups and names' }), anyone: Type.Boolean() })
	}
] as const satisfies readonly Operation[];
