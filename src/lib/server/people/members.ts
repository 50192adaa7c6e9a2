// Members: changed, suspended, taken out, invited by mail; and their groups. Sign-in is auth.ts's, staff accounts are staff.ts's.
import { and, eq, inArray, sql as raw } from 'drizzle-orm';
import { Type, type Static } from '@sinclair/typebox';
import { Line } from '#core/text/line';
import { dayOf, isDay } from '#core/access/hours';
import { IanuaError } from '#core/errors';
import { joined, left, type Membership } from '#core/people/membership';
import { db, sql, type Queryable } from '../db/client';
import { theRow } from '../db/rows';
import { group, membership, person, session } from '../db/schema';
import { newId } from '../id';
import { named, writeAudit } from '../site/audit';
import { site } from '../site/site';
import { insertPerson, listPeople, type PeopleQuery } from './directory';
import { groupIds, insertMemberships } from './memberships';
import { mailInvitation, type Invited } from './staff';
import type { Person } from './who';
import { slugFor } from '../slug';

const Day = Type.Union([Type.String({ format: 'date' }), Type.Null()]);
export const MembershipGiven = Type.Object(
	{ group: Type.String({ maxLength: 120 }), from: Type.Optional(Day), until: Type.Optional(Day) },
	{ additionalProperties: false }
);
const Name = Line(120);
const Email = Type.String({ format: 'email', maxLength: 320 });
const Memberships = Type.Array(MembershipGiven, { maxItems: 200 });

/** A new member. Without a password they are invited by mail, or sign in by a mailed link. */
export const MemberGiven = Type.Object(
	{
		name: Name,
		email: Email,
		password: Type.Optional(Type.String({ minLength: 10, maxLength: 128 })),
		memberships: Type.Optional(Memberships),
		invite: Type.Optional(Type.Boolean())
	},
	{ additionalProperties: false }
);
/** Only what is named changes; `memberships` stands for all of them. */
export const MemberChange = Type.Object(
	{ name: Type.Optional(Name), email: Type.Optional(Email), suspended: Type.Optional(Type.Boolean()), memberships: Type.Optional(Memberships) },
	{ additionalProperties: false }
);
export type MemberChange = Static<typeof MemberChange>;
const PersonId = Type.String({ format: 'uuid' });
/** One change to many members, all or none. */
export const MembersChange = Type.Object(
	{
		members: Type.Array(PersonId, { minItems: 1, maxItems: 1000, uniqueItems: true }),
		suspended: Type.Optional(Type.Boolean()),
		join: Type.Optional({
			...MembershipGiven,
			description:
				'puts them into a group: of memberships that are not over the one that ends last takes the days, else there is one more, from today unless said'
		}),
		leave: Type.Optional(Type.String({ maxLength: 120, description: 'takes them out of a group, with yesterday' }))
	},
	{ additionalProperties: false }
);
export const MembersUndo = Type.Object(
	{ undo: Type.Array(Type.Object({ id: PersonId, change: MemberChange }, { additionalProperties: false }), { maxItems: 1000 }) },
	{ additionalProperties: false }
);
export const GroupGiven = Type.Object({ name: Name, description: Type.Optional(Type.String({ maxLength: 2000 })) }, { additionalProperties: false });
export const GroupChange = Type.Object(
	{ name: Type.Optional(Name), description: Type.Optional(Type.String({ maxLength: 2000 })) },
	{ additionalProperties: false }
);

export interface MemberView {
	readonly id: string;
	readonly name: string;
	readonly email: string;
	readonly suspended: boolean;
	readonly memberships: readonly { readonly group: string; readonly name: string; readonly from: string | null; readonly until: string | null }[];
	/** Whether they have a password, or come in by mailed links only. */
	readonly password: boolean;
	readonly createdAt: string;
	/** When they last did something while signed in. */
	readonly seenAt: string | null;
}

type Row = Omit<MemberView, 'createdAt' | 'seenAt'> & { created_at: Date; seen_at: Date | null };

/** Members as `listPeople` finds them, each whole. */
export async function listMembers(query: PeopleQuery): Promise<{ items: MemberView[]; total: number }> {
	const { items, total } = await listPeople({ ...query, members: true });
	const views = new Map((await viewsOf(items.map((i) => i.id))).map((v) => [v.id, v]));
	// a view for each of the ids
	return { items: items.map((i) => views.get(i.id)!), total };
}

/** A member; people of the staff are none. */
export async function memberView(id: string): Promise<MemberView> {
	const [view] = /^[0-9a-f-]{36}$/.test(id) ? await viewsOf([id]) : [];
	if (!view) throw new IanuaError('not-found');
	return view;
}

async function viewsOf(ids: readonly string[]): Promise<MemberView[]> {
	if (!ids.length) return [];
	const rows = await sql()<Row[]>`
		select p.id, p.name, p.email, p.suspended, p.created_at,
			coalesce((select jsonb_agg(jsonb_build_object('group', g.slug, 'name', g.name, 'from', m.from_day, 'until', m.until_day) order by g.name, m.from_day)
				from membership m join member_group g on g.id = m.group_id where m.person_id = p.id), '[]') as memberships,
			exists (select 1 from account a where a.person_id = p.id and a.password is not null) as password,
			greatest((select max(s.updated_at) from session s where s.person_id = p.id), (select max(l.at) from ledger l where l.person_id = p.id)) as seen_at
		from person p where p.id in ${sql()([...ids])} and p.role = 'member' and p.closed_at is null`;
	return rows.map(({ created_at, seen_at, ...rest }) => ({ ...rest, createdAt: created_at.toISOString(), seenAt: seen_at?.toISOString() ?? null }));
}

async function memberOf(tx: Queryable, id: string) {
	if (!/^[0-9a-f-]{36}$/.test(id)) throw new IanuaError('not-found');
	const [row] = await tx
		.select()
		.from(person)
		.where(and(eq(person.id, id), eq(person.role, 'member')))
		.for('update');
	if (!row || row.closedAt) throw new IanuaError('not-found');
	return row;
}

/** What of a person the audit trail keeps. */
async function trailOf(tx: Queryable, id: string) {
	const row = theRow(
		await tx.execute(raw`
		select p.name, p.email, p.suspended, coalesce((select jsonb_agg(jsonb_build_object('group', g.slug, 'from', m.from_day, 'until', m.until_day) order by g.slug, m.from_day)
			from membership m join member_group g on g.id = m.group_id where m.person_id = p.id), '[]') as memberships
		from person p where p.id = ${id}`)
	);
	return row;
}

function checkDays(memberships: readonly Static<typeof MembershipGiven>[]) {
	for (const { from, until, group: slug } of memberships) {
		for (const day of [from, until]) if (day && !isDay(day)) throw new IanuaError('not-valid', { detail: `“${day}” is not a day` });
		if (from && until && from > until) throw new IanuaError('not-valid', { detail: `the membership of “${slug}” ends before it begins` });
	}
}

/** Adds a member. */
export async function addMember(given: Omit<Static<typeof MemberGiven>, 'invite' | 'password'> & { password: string | null }, actor: string): Promise<string> {
	checkDays(given.memberships ?? []);
	return db().transaction((tx) => insertPerson(tx, { ...given, role: 'member' }, actor));
}

/** Changes what is named, and gives what was there before in the same words. Throws `not-found`, `email-taken`. */
export async function changeMember(id: string, change: MemberChange, actor: string): Promise<MemberChange> {
	return db().transaction((tx) => changeWithin(tx, id, change, actor));
}

async function changeWithin(tx: Queryable, id: string, change: MemberChange, actor: string): Promise<MemberChange> {
	checkDays(change.memberships ?? []);
	const row = await memberOf(tx, id);
	const before = await trailOf(tx, id);
	const email = change.email?.trim().toLowerCase();
	if (email && email !== row.email) {
		const [taken] = await tx.select({ id: person.id }).from(person).where(eq(person.email, email));
		if (taken) throw new IanuaError('email-taken', { email });
	}
	await tx.update(person).set({ name: change.name?.trim(), email, suspended: change.suspended, updatedAt: new Date() }).where(eq(person.id, id));
	if (change.suspended) await tx.delete(session).where(eq(session.userId, id));
	if (change.memberships) {
		await tx.delete(membership).where(eq(membership.personId, id));
		await insertMemberships(tx, id, change.memberships);
	}
	await writeAudit(tx, { actor, action: 'changed', kind: 'person', thing: id, before, after: await trailOf(tx, id) });
	return named(before, change);
}

/** Changes many members alike, all or none, and gives what puts each back. Throws `not-found` where one is none, `group-unknown`. */
export async function changeMembers({ members, suspended, join, leave }: Static<typeof MembersChange>, actor: string): Promise<Static<typeof MembersUndo>> {
	const today = dayOf(Date.now(), (await site()).zone);
	return db().transaction(async (tx) => {
		await groupIds(
			tx,
			[join?.group, leave].filter((slug) => slug !== undefined)
		);
		const undo: Static<typeof MembersUndo>['undo'] = [];
		// one after the other by their ids, so that two who do so wait for each other and not in a ring
		for (const id of [...members].sort()) {
			const row = await memberOf(tx, id);
			let memberships = await membershipsWithin(tx, id);
			const [before, among] = [JSON.stringify(memberships), memberships];
			if (join) memberships = joined(memberships, join, today);
			if (leave !== undefined) memberships = left(memberships, leave, today);
			const changes = {
				...(before === JSON.stringify(memberships) ? {} : { memberships }),
				...(suspended === undefined || suspended === row.suspended ? {} : { suspended })
			};
			if (!Object.keys(changes).length) continue;
			const wrong = memberships.find(({ from, until }) => from && until && from > until);
			if (wrong) throw new IanuaError('not-valid', { detail: `${row.name}’s membership of “${wrong.group}” would end before it begins, on ${wrong.from}` });
			await changeWithin(tx, id, changes, actor);
			undo.push({ id, change: { ...(changes.memberships ? { memberships: among } : {}), ...('suspended' in changes ? { suspended: row.suspended } : {}) } });
		}
		return { undo };
	});
}

/** Puts members back as `changeMembers` found them, all or none; who is gone meanwhile stays so. */
export async function undoMembers({ undo }: Static<typeof MembersUndo>, actor: string): Promise<void> {
	await db().transaction(async (tx) => {
		const there = new Set((await tx.select({ id: person.id }).from(person).where(inArray(person.id, undo.map(({ id }) => id)))).map(({ id }) => id)); // prettier-ignore
		for (const { id, change } of [...undo].sort((a, b) => (a.id < b.id ? -1 : 1))) if (there.has(id)) await changeWithin(tx, id, change, actor);
	});
}

async function membershipsWithin(tx: Queryable, personId: string): Promise<Membership[]> {
	return tx
		.select({ group: group.slug, from: membership.fromDay, until: membership.untilDay })
		.from(membership)
		.innerJoin(group, eq(group.id, membership.groupId))
		.where(eq(membership.personId, personId))
		.orderBy(group.slug, membership.fromDay);
}

/**
 * Takes a member out: account, memberships and sessions go, doors no longer name them. What they read stays in the ledger without a
 * name.
 */
export async function removeMember(id: string, actor: string): Promise<void> {
	await db().transaction(async (tx) => {
		await memberOf(tx, id);
		const before = await trailOf(tx, id);
		await forgetPerson(tx, id);
		await writeAudit(tx, { actor, action: 'removed', kind: 'person', thing: id, before });
	});
}

/** Takes all that names a person out of the tables; their entries in the ledger become those of a reader without a name. */
export async function forgetPerson(tx: Queryable, id: string): Promise<void> {
	await tx.execute(raw`select ledger_forget(${id}::uuid)`);
	await tx.delete(person).where(eq(person.id, id));
}

/** Mails a member the address at which they choose their password; it holds for seven days. */
export async function inviteMember(id: string, actor: Person): Promise<Invited> {
	const view = await memberView(id);
	if (view.suspended) throw new IanuaError('not-valid', { detail: 'the account is suspended' });
	return mailInvitation({ name: view.name, email: view.email, role: 'member' }, actor);
}

// ---- groups

export async function changeGroup(slug: string, change: Static<typeof GroupChange>, actor: string): Promise<Static<typeof GroupChange>> {
	return db().transaction(async (tx) => {
		const [row] = await tx.select().from(group).where(eq(group.slug, slug)).for('update');
		if (!row) throw new IanuaError('not-found');
		await tx
			.update(group)
			.set({ name: change.name?.trim() ?? row.name, description: change.description?.trim() ?? row.description })
			.where(eq(group.id, row.id));
		const after = theRow(await tx.select().from(group).where(eq(group.id, row.id)));
		await writeAudit(tx, {
			actor,
			action: 'changed',
			kind: 'group',
			thing: row.id,
			before: { name: row.name, description: row.description },
			after: { name: after.name, description: after.description }
		});
		return named({ name: row.name, description: row.description }, change);
	});
}

/** How many doors admit a group, and how many memberships there are: what taking it away would end. */
export async function groupUse(slug: string): Promise<{ doors: number; memberships: number }> {
	const [row] = await sql()<{ doors: number; memberships: number }[]>`
		select (select count(*)::int from door_group d where d.group_id = g.id) as doors, (select count(*)::int from membership m where m.group_id = g.id) as memberships
		from member_group g where g.slug = ${slug}`;
	if (!row) throw new IanuaError('not-found');
	return row;
}

/** Takes a group away, with its memberships; the doors that admitted it admit it no longer. */
export async function removeGroup(slug: string, actor: string): Promise<void> {
	await db().transaction(async (tx) => {
		const [row] = await tx.select().from(group).where(eq(group.slug, slug)).for('update');
		if (!row) throw new IanuaError('not-found');
		const members = await tx.execute(
			raw`select p.email, m.from_day as "from", m.until_day as until from membership m join person p on p.id = m.person_id where m.group_id = ${row.id} order by p.email`
		);
		await tx.delete(group).where(eq(group.id, row.id));
		await writeAudit(tx, { actor, action: 'removed', kind: 'group', thing: row.id, before: { name: row.name, slug, members: [...members] } });
	});
}

/** Takes a group in as it was on another site: with its address. */
export async function takeInGroup(
	tx: Queryable,
	given: { slug: string; name: string; description: string; createdAt: Date },
	actor: string | null
): Promise<void> {
	const id = newId();
	await tx.insert(group).values({ id, ...given });
	await writeAudit(tx, { actor, action: 'added', kind: 'group', thing: id, after: { name: given.name, slug: given.slug } });
}

/** Makes a group within a transaction; where its address is taken by one of another name, a number is added. */
export async function insertGroup(tx: Queryable, name: string, actor: string | null): Promise<{ id: string; slug: string }> {
	const stem = slugFor(name, 'group');
	for (let n = 1; ; n++) {
		const slug = n === 1 ? stem : `${stem}-${n}`;
		const [made] = await tx.insert(group).values({ id: newId(), slug, name: name.trim() }).onConflictDoNothing().returning({ id: group.id, slug: group.slug });
		if (!made) continue;
		await writeAudit(tx, { actor, action: 'added', kind: 'group', thing: made.id, after: { name, slug } });
		return made;
	}
}
