// The API of members, groups and tokens: each operation with what it takes and gives. Requests are checked by these schemas, and openapi.json is made of them.
import { Type, type TInteger, type TOptional } from '@sinclair/typebox';
import { dayOrders, meanings, type Meaning } from '#core/people/csv';
import { scopes } from '#core/people/scope';
import { Cursor, Instant, Limit, listInParts, listOf, Nothing, nullable, oneOf, type Operation, withBefore } from '../http/contract';
import { GroupChange, GroupGiven, MemberChange, MemberGiven, MembersChange, MembersUndo } from './members';
import { standings } from './directory';
import { TokenGiven } from './tokens';

export const MembersQuery = Type.Object(
	{
		q: Type.Optional(Type.String({ maxLength: 200, description: 'part of a name or a mail address' })),
		group: Type.Optional(Type.String({ maxLength: 120, description: 'slug of a group that they are in' })),
		standing: Type.Optional(oneOf(standings, { description: 'whose memberships end soon, or have ended; or who is suspended' })),
		cursor: Cursor,
		limit: Limit
	},
	{ additionalProperties: false }
);

/** Beside it `preview`, and the columns by their meanings, counted from 0: `email=0&name=1`. */
export const TableQuery = Type.Object({
	dayOrder: Type.Optional(oneOf(dayOrders, { description: 'how days are written in the table' })),
	makeGroups: Type.Optional(Type.Boolean({ description: 'groups that are not there yet are made' })),
	end: Type.Optional(Type.Boolean({ description: 'memberships that the table does not have any more, of the groups that it names, end' })),
	preview: Type.Optional(
		Type.Union([Type.Literal(''), Type.Literal('true'), Type.Literal('false')], { description: 'tells what it would change, and changes nothing' })
	),
	...(Object.fromEntries(
		meanings.map((m) => [m, Type.Optional(Type.Integer({ minimum: 0, description: `the column of ${m}, from 0; guessed by the headings where none is said` }))])
	) as Record<Meaning, TOptional<TInteger>>)
});

export const MemberAnswer = Type.Object({
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

export const GroupAnswer = Type.Object({
	id: Type.String({ format: 'uuid' }),
	slug: Type.String(),
	name: Type.String(),
	description: Type.String(),
	people: Type.Integer({ description: 'current today' })
});

const days = { from: nullable(Type.String({ format: 'date' })), until: nullable(Type.String({ format: 'date' })) };
/** What one line of a table would do; line 1 is the heading. */
const TableLine = Type.Union([
	Type.Object({ line: Type.Integer(), kind: Type.Literal('wrong'), trouble: Type.String() }),
	Type.Object({
		line: Type.Integer(),
		kind: oneOf(['added', 'changed', 'same']),
		email: Type.String(),
		name: Type.String(),
		formerName: Type.Optional(Type.String()),
		group: nullable(Type.String()),
		...days,
		former: Type.Optional(nullable(Type.Object(days)))
	})
]);

/** What a table, or the whole list of a group, would change. */
const planned = {
	added: Type.Integer(),
	changed: Type.Integer(),
	same: Type.Integer(),
	wrong: Type.Integer(),
	newGroups: Type.Array(Type.String()),
	endless: Type.Integer({ description: 'memberships that have an end and would have none' }),
	ended: Type.Array(
		Type.Object({
			email: Type.String(),
			name: Type.String(),
			group: Type.String(),
			...days,
			last: nullable(Type.String({ format: 'date', description: 'the day that becomes its last; null where it goes without having begun' }))
		}),
		{ description: 'memberships that end, where that was asked for' }
	),
	lines: Type.Array(TableLine, { description: 'at most 500, those that are wrong first' }),
	done: Type.Boolean()
};

export const TableAnswer = Type.Object({
	...planned,
	header: Type.Array(Type.String()),
	encoding: Type.String(),
	mapping: Type.Record(Type.String(), Type.Integer()),
	dayOrder: oneOf(dayOrders)
});

const memberDays = { from: Type.Optional(nullable(Type.String({ format: 'date' }))), until: Type.Optional(nullable(Type.String({ format: 'date' }))) };

/** Everybody in a group: who is not named is in it no longer. */
export const GroupMembersBody = Type.Object(
	{
		members: Type.Array(
			Type.Object(
				{
					email: Type.String({ format: 'email', maxLength: 320 }),
					name: Type.Optional(Type.String({ maxLength: 120, description: 'for somebody new' })),
					...memberDays
				},
				{ additionalProperties: false }
			),
			{ maxItems: 50_000 }
		)
	},
	{ additionalProperties: false }
);
export const GroupMembersQuery = Type.Object({
	preview: Type.Optional(
		Type.Union([Type.Literal(''), Type.Literal('true'), Type.Literal('false')], { description: 'tells what it would change, and changes nothing' })
	)
});
/** Its lines count from 2, as those of a table do: the first member is line 2. */
export const GroupMembersAnswer = Type.Object(planned);

export const peopleOperations = [
	{
		method: 'get',
		path: '/tokens',
		words: 'Your tokens for programs',
		status: 200,
		answer: listOf(
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
		)
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
	{ method: 'get', path: '/groups', words: 'Groups of members', status: 200, answer: listOf(GroupAnswer) },
	{ method: 'post', path: '/groups', words: 'Makes a group', body: GroupGiven, status: 201, answer: GroupAnswer },
	{ method: 'get', path: '/groups/{slug}', words: 'One group', status: 200, answer: GroupAnswer },
	{ method: 'patch', path: '/groups/{slug}', words: 'Changes a group', body: GroupChange, status: 200, answer: withBefore(GroupAnswer, GroupChange) },
	{
		method: 'put',
		path: '/groups/{slug}/members',
		words:
			'Sets who is in a group, the whole list: ?preview tells what it would change. Days that are not given stay as they are; people who are not named leave with yesterday',
		query: GroupMembersQuery,
		body: GroupMembersBody,
		status: 200,
		answer: GroupMembersAnswer
	},
	{ method: 'delete', path: '/groups/{slug}', words: 'Takes a group and its memberships away', status: 200, answer: Nothing },
	{
		method: 'get',
		path: '/members',
		words: 'Lists members',
		query: MembersQuery,
		status: 200,
		answer: listInParts(MemberAnswer, { total: Type.Integer() })
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
	{ method: 'post', path: '/members/bulk', words: 'One change to many members, all or none', body: MembersChange, status: 200, answer: MembersUndo },
	{ method: 'post', path: '/members/bulk/undo', words: 'Puts many members back', body: MembersUndo, status: 200, answer: Nothing },
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
	}
] as const satisfies readonly Operation[];
