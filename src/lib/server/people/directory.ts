// Members, staff and groups: adding them and listing them.
import { eq, inArray, sql as raw } from 'drizzle-orm';
import { IanuaError } from '#core/errors';
import { dayOf } from '#core/access/hours';
import { db, sql, type Queryable } from '../db/client';
import { theRow } from '../db/rows';
import { holding } from '../db/like';
import { account, group, person } from '../db/schema';
import type { After } from '../http/cursor';
import { newId } from '../id';
import { writeAudit } from '../site/audit';
import { site, saveSite, type Site } from '../site/site';
import { hashPassword } from './auth';
import { insertMemberships } from './memberships';
import { slugFor } from '../slug';

export interface GroupRow {
	readonly id: string;
	readonly slug: string;
	readonly name: string;
	readonly description: string;
	/** Members whose membership is current today. */
	readonly people: number;
}

/** Every group with its people of today, by name. */
export const listGroups = (): Promise<GroupRow[]> => groupRows(null);

/** The name of a group by its id; null where there is none. */
export async function groupName(id: string): Promise<string | null> {
	const [row] = await db().select({ name: group.name }).from(group).where(eq(group.id, id));
	return row?.name ?? null;
}

/** One group. */
export async function groupView(slug: string): Promise<GroupRow> {
	const [row] = await groupRows(slug);
	if (!row) throw new IanuaError('not-found');
	return row;
}

async function groupRows(slug: string | null): Promise<GroupRow[]> {
	const today = dayOf(Date.now(), (await site()).zone);
	return sql()<GroupRow[]>`
		select g.id, g.slug, g.name, g.description, count(distinct p.id)::int as people
		from member_group g
		left join membership m on m.group_id = g.id and is_current(m, ${today}::date)
		left join person p on p.id = m.person_id and not p.suspended and p.role = 'member'
		where ${slug}::text is null or g.slug = ${slug} group by g.id order by g.name`;
}

/** How many members have any current membership: whom "all members" comes to today. */
export async function countAllMembers(): Promise<number> {
	const today = dayOf(Date.now(), (await site()).zone);
	const row = theRow(
		await sql()<{ n: number }[]>`
		select count(distinct p.id)::int as n from person p join membership m on m.person_id = p.id
		where not p.suspended and p.role = 'member' and is_current(m, ${today}::date)`
	);
	return row.n;
}

export interface MemberRow {
	readonly id: string;
	readonly name: string;
	readonly email: string;
	readonly role: 'owner' | 'editor' | 'member';
	readonly suspended: boolean;
	readonly memberships: readonly { readonly group: string; readonly from: string | null; readonly until: string | null }[];
}

export const standings = ['lapsing', 'lapsed', 'suspended'] as const;
export type Standing = (typeof standings)[number];

export interface PeopleQuery {
	readonly q?: string;
	/** Address of a group. */
	readonly group?: string;
	readonly standing?: Standing;
	/** Without the staff. */
	readonly members?: boolean;
	readonly offset?: number;
	/** Those behind this one by name, in place of `offset`. */
	readonly after?: After | undefined;
	readonly limit?: number;
}

/** Days before the end of a membership from which it counts as lapsing soon. */
export const lapsingDays = 30;

/**
 * People whose name or address contains `q`, by name; `offset` skips. `standing`: members with a membership that lapses within 30 days
 * and goes on in no other of the same group; those whose memberships have all lapsed; those suspended.
 */
export async function listPeople({
	q = '',
	group: slug = '',
	standing,
	members = false,
	offset = 0,
	after,
	limit = 50
}: PeopleQuery): Promise<{ items: MemberRow[]; total: number }> {
	const like = holding(q);
	const s = sql();
	const today = dayOf(Date.now(), (await site()).zone);
	const stands = {
		all: s`true`,
		lapsing: s`p.id in (select lapsing(${today}::date, ${lapsingDays}))`,
		lapsed: s`exists (select 1 from membership m where m.person_id = p.id) and not exists (
			select 1 from membership m where m.person_id = p.id and (m.until_day is null or m.until_day >= ${today}::date))`,
		suspended: s`p.suspended and p.closed_at is null`
	}[standing ?? 'all'];
	const rows = await s<(MemberRow & { total: number })[]>`
		select x.*, coalesce((select jsonb_agg(jsonb_build_object('group', g.name, 'from', m.from_day, 'until', m.until_day) order by g.name)
			from membership m join member_group g on g.id = m.group_id where m.person_id = x.id), '[]') as memberships
		from (select p.id, p.name, p.email, p.role, p.suspended, count(*) over ()::int as total from person p
		where p.closed_at is null and (p.name ilike ${like} or p.email ilike ${like})
			and (${slug} = '' or exists (select 1 from membership m join member_group g on g.id = m.group_id where m.person_id = p.id and g.slug = ${slug})) and ${stands} and (not ${members} or p.role = 'member')) x
		where ${after ? s`(x.name, x.id) > (${after.value}, ${after.id}::uuid)` : s`true`}
		order by x.role <> 'member' desc, x.name, x.id limit ${limit} offset ${offset}`;
	return { items: rows.map(({ total: _total, ...row }) => row), total: rows[0]?.total ?? 0 };
}

/** How many members each standing shows. */
export async function countStandings(): Promise<{ lapsing: number; lapsed: number; suspended: number }> {
	const totalOf = async (standing: Standing) => (await listPeople({ standing, limit: 1 })).total;
	const [lapsing, lapsed, suspended] = await Promise.all([totalOf('lapsing'), totalOf('lapsed'), totalOf('suspended')]);
	return { lapsing, lapsed, suspended };
}

/** Adds a group; its address is made from its name. */
export async function addGroup(name: string, actor: string | null, description = ''): Promise<{ id: string; slug: string }> {
	const slug = slugFor(name, 'group');
	return db().transaction(async (tx) => {
		const [made] = await tx
			.insert(group)
			.values({ id: newId(), slug, name: name.trim(), description: description.trim() })
			.onConflictDoNothing()
			.returning({ id: group.id, slug: group.slug });
		if (!made) throw new IanuaError('address-taken', { slug });
		await writeAudit(tx, { actor, action: 'added', kind: 'group', thing: made.id, after: { name, slug } });
		return made;
	});
}

export interface NewPerson {
	readonly name: string;
	readonly email: string;
	/** Null: none yet; they are invited, or come in by mailed links. */
	readonly password: string | null;
	readonly role: 'owner' | 'editor' | 'member';
	readonly memberships?: readonly { readonly group: string; readonly from?: string | null; readonly until?: string | null }[];
	/** Nothing yet shows that the mailbox is theirs: the first sign-in by the password is confirmed by mail. */
	readonly unconfirmed?: boolean;
	/** What they bring along from another site. */
	readonly suspended?: boolean;
	readonly createdAt?: Date;
}

/** Adds a person with a password to sign in by; groups are named by their addresses. */
export async function addPerson(given: NewPerson, actor: string | null): Promise<string> {
	const password = given.password === null ? null : await hashPassword(given.password);
	return db().transaction((tx) => insertPerson(tx, { ...given, password }, actor));
}

/** The same inside a transaction, with the password hashed already. */
export async function insertPerson(tx: Queryable, given: NewPerson, actor: string | null): Promise<string> {
	const email = given.email.trim().toLowerCase();
	const [made] = await tx
		.insert(person)
		.values({
			id: newId(),
			name: given.name.trim(),
			email,
			role: given.role,
			emailVerified: !given.unconfirmed,
			suspended: given.suspended,
			createdAt: given.createdAt
		})
		.onConflictDoNothing()
		.returning({ id: person.id });
	if (!made) throw new IanuaError('email-taken', { email });
	const now = new Date();
	await tx
		.insert(account)
		.values({ id: newId(), accountId: made.id, providerId: 'credential', userId: made.id, password: given.password, createdAt: now, updatedAt: now });
	const wanted = given.memberships ?? [];
	await insertMemberships(tx, made.id, wanted);
	await writeAudit(tx, {
		actor,
		action: 'added',
		kind: 'person',
		thing: made.id,
		after: { email, name: given.name.trim(), role: given.role, ...(wanted.length ? { memberships: wanted } : {}) }
	});
	return made.id;
}

/** The ids of people by their mail addresses; one that nobody has is an error. */
export async function personIds(tx: Queryable, emails: readonly string[]): Promise<Map<string, string>> {
	if (!emails.length) return new Map();
	const wanted = emails.map((e) => e.trim().toLowerCase());
	const rows = await tx.select({ id: person.id, email: person.email }).from(person).where(inArray(person.email, wanted));
	const ids = new Map(rows.map((r) => [r.email, r.id]));
	for (const email of wanted) if (!ids.has(email)) throw new IanuaError('person-unknown', { email });
	return ids;
}

/** Whether the site has an owner yet. Once it has, it always has. */
let ownerSeen = false;
/** The member of the staff with a mail address. Throws `not-valid` where nobody of the staff has it. */
export async function staffIdOf(tx: Queryable, email: string): Promise<string> {
	const [row] = await tx.select({ id: person.id, role: person.role }).from(person).where(eq(person.email, email.trim().toLowerCase()));
	if (!row || row.role === 'member') throw new IanuaError('not-valid', { detail: `nobody of the staff has the address ${email}` });
	return row.id;
}

/** The mail address of somebody; null where they are gone. */
export async function emailOf(tx: Queryable, id: string): Promise<string | null> {
	const [row] = await tx.select({ email: person.email }).from(person).where(eq(person.id, id));
	return row?.email ?? null;
}

/** Names for the ids of groups and people. */
export async function namesOf(): Promise<{ group: (id: string) => string; person: (id: string) => string }> {
	const rows = await sql()<
		{ id: string; name: string }[]
	>`select id, name from member_group union all select p.id, p.name from person p where exists (select 1 from door_person x where x.person_id = p.id)`;
	const names = new Map(rows.map((r) => [r.id, r.name]));
	const name = (id: string) => names.get(id) ?? 'somebody who is gone';
	return { group: name, person: name };
}

/** Whether anybody owns the site yet. */
export async function hasOwner(): Promise<boolean> {
	if (ownerSeen) return true;
	const [row] = await db().select({ id: person.id }).from(person).where(eq(person.role, 'owner')).limit(1);
	return (ownerSeen = row !== undefined);
}

/** Makes the first owner and names the site; two people doing so at once get one owner. */
export async function makeFirstOwner(given: { name: string; email: string; password: string }, named: Site): Promise<void> {
	const password = await hashPassword(given.password);
	await db().transaction(async (tx) => {
		await tx.execute(raw`select pg_advisory_xact_lock(4173002)`);
		const [row] = await tx.select({ id: person.id }).from(person).where(eq(person.role, 'owner')).limit(1);
		if (row) throw new IanuaError('owner-exists');
		await insertPerson(tx, { ...given, password, role: 'owner' }, null);
	});
	await saveSite(named);
}

export interface MembershipView {
	readonly group: string;
	readonly from: string | null;
	readonly until: string | null;
	readonly current: boolean;
}

/** A person's memberships, with whether each is current today. */
export async function membershipsOf(personId: string): Promise<MembershipView[]> {
	const today = dayOf(Date.now(), (await site()).zone);
	return sql()<MembershipView[]>`
		select g.name as "group", m.from_day::text as "from", m.until_day::text as "until",
			is_current(m, ${today}::date) as current
		from membership m join member_group g on g.id = m.group_id where m.person_id = ${personId} order by g.name`;
}

/** A person’s role; null where there is no such person. */
export async function roleOf(personId: string): Promise<MemberRow['role'] | null> {
	const [row] = await db().select({ role: person.role }).from(person).where(eq(person.id, personId));
	return row?.role ?? null;
}

/** Whether signing in asks for a code besides the password. */
export async function secondFactorOf(personId: string): Promise<boolean> {
	const [row] = await db().select({ on: person.twoFactorEnabled }).from(person).where(eq(person.id, personId));
	return row?.on ?? false;
}
