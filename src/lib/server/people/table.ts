// Members as a table (CSV, RFC 4180): brought in after a look at what would change, and taken out.
import Papa from 'papaparse';
import { eq, inArray, sql as raw } from 'drizzle-orm';
import { guessDayOrder, guessMapping, meanings, planMembers, type DayOrder, type KnownPerson, type Mapping, type Plan } from '#core/people/csv';
import { dayOf } from '#core/access/hours';
import { IanuaError } from '#core/errors';
import { db, sql, type Queryable } from '../db/client';
import { membership, person } from '../db/schema';
import type { Table } from '../http/table';
import { newId } from '../id';
import { writeAudit } from '../site/audit';
import { site } from '../site/site';
import { insertGroup } from './members';
import { insertPerson, listGroups } from './directory';
import { groupIds } from './memberships';

export interface TableWish {
	readonly mapping?: Mapping;
	readonly dayOrder?: DayOrder;
	readonly makeGroups?: boolean;
	/** Memberships that the table does not have any more end: of the groups that it names, and of these. */
	readonly end?: { readonly groups?: readonly string[] };
}

/** A table as it was read, or one made from a list: there a cell may be missing. */
type Given = Omit<Table, 'rows'> & { readonly rows: readonly (readonly (string | undefined)[])[] };

export interface TablePreview extends Plan {
	readonly header: readonly string[];
	readonly encoding: Table['encoding'];
	readonly mapping: Mapping;
	readonly dayOrder: DayOrder;
}

async function knownPeople(): Promise<KnownPerson[]> {
	return sql()<KnownPerson[]>`
		select p.email, p.name, p.role <> 'member' as staff,
			coalesce((select jsonb_agg(jsonb_build_object('group', g.slug, 'from', m.from_day, 'until', m.until_day)) from membership m join member_group g on g.id = m.group_id
				where m.person_id = p.id), '[]') as memberships
		from person p`;
}

/** What a table would change, with what its columns are taken for. */
export async function previewTable(table: Given, wish: TableWish): Promise<TablePreview> {
	const mapping = wish.mapping ?? guessMapping(table.header);
	const column = (at: number | undefined) => (at === undefined ? [] : table.rows.map((r) => r[at] ?? ''));
	const dayOrder = wish.dayOrder ?? guessDayOrder([...column(mapping.from), ...column(mapping.until)]);
	const [people, groups] = await Promise.all([knownPeople(), listGroups()]);
	const end = wish.end && { ...wish.end, today: dayOf(Date.now(), (await site()).zone) };
	const plan = planMembers(table.rows, mapping, { dayOrder, makeGroups: wish.makeGroups ?? false, people, groups, end });
	return { ...plan, header: table.header, encoding: table.encoding, mapping, dayOrder };
}

/** Carries a table out: all of it or, where any line is wrong, nothing. */
export async function bringInTable(table: Given, wish: TableWish, actor: string): Promise<TablePreview> {
	const plan = await previewTable(table, wish);
	const wrong = plan.lines.filter((l) => l.kind === 'wrong');
	if (wrong.length) {
		const detail = wrong
			.slice(0, 5)
			.map((l) => `line ${l.line}: ${l.trouble}`)
			.join(' ');
		throw new IanuaError('table-wrong', { count: String(wrong.length), detail });
	}
	await db().transaction(async (tx) => {
		const made = new Map<string, string>();
		for (const name of plan.newGroups) made.set(name, (await insertGroup(tx, name, actor)).slug);
		const slugs = [...new Set(plan.lines.flatMap((l) => (l.kind === 'wrong' || !l.group ? [] : [made.get(l.group) ?? l.group])))];
		const ids = await groupIds(tx, slugs);
		const emails = [...new Set(plan.lines.flatMap((l) => (l.kind === 'wrong' ? [] : [l.email])))];
		const people = new Map<string, { id: string; name: string }>();
		for (let first = 0; first < emails.length; first += 5000)
			for (const row of await tx
				.select({ id: person.id, email: person.email, name: person.name })
				.from(person)
				.where(inArray(person.email, emails.slice(first, first + 5000))))
				people.set(row.email, row);
		for (const line of plan.lines) {
			if (line.kind === 'wrong' || line.kind === 'same') continue;
			let there = people.get(line.email);
			if (!there) {
				const id = await insertPerson(tx, { name: line.name, email: line.email, password: null, role: 'member' }, actor);
				people.set(line.email, (there = { id, name: line.name }));
			}
			if (line.formerName !== undefined) await tx.update(person).set({ name: line.name, updatedAt: new Date() }).where(eq(person.id, there.id));
			if (line.group) {
				// groups that were missing have been made
				const groupId = ids.get(made.get(line.group) ?? line.group)!;
				if (line.former)
					await tx.execute(raw`delete from membership where person_id = ${there.id} and group_id = ${groupId}
						and from_day is not distinct from ${line.former.from}::date and until_day is not distinct from ${line.former.until}::date`);
				await tx.insert(membership).values({ id: newId(), personId: there.id, groupId, fromDay: line.from, untilDay: line.until });
			}
			await writeAudit(tx, {
				actor,
				action: 'changed',
				kind: 'person',
				thing: there.id,
				before: { ...(line.formerName === undefined ? {} : { name: line.formerName }), ...(line.former ? { group: line.group, ...line.former } : {}) },
				after: { name: line.name, group: line.group, from: line.from, until: line.until, by: 'table' }
			});
		}
		await endMemberships(tx, plan.ended, actor);
	});
	return plan;
}

/** Lines of a plan that an answer tells of: what is wrong first. */
export const linesToTell = (lines: Plan['lines']): Plan['lines'] =>
	[...lines].sort((a, b) => Number(b.kind === 'wrong') - Number(a.kind === 'wrong') || a.line - b.line).slice(0, 500);

/** Members of a group as lines of a table: of whom no days are said, they stay as they are; null is none. */
export function membersAsTable(
	members: readonly { readonly email: string; readonly name?: string; readonly from?: string | null; readonly until?: string | null }[],
	group: string
): Given {
	const cell = (day: string | null | undefined) => (day === undefined ? undefined : (day ?? ''));
	return {
		header: ['email', 'name', 'group', 'from', 'until'],
		rows: members.map(({ email, name, from, until }) => [email, name, group, cell(from), cell(until)]),
		encoding: 'UTF-8',
		delimiter: ','
	};
}

async function endMemberships(tx: Queryable, ended: Plan['ended'], actor: string): Promise<void> {
	for (const { email, group, from, until, last } of ended) {
		const which = raw`m.person_id = p.id and p.email = ${email} and m.group_id = g.id and g.slug = ${group}
			and m.from_day is not distinct from ${from}::date and m.until_day is not distinct from ${until}::date`;
		const rows = await tx.execute<{ id: string }>(
			last
				? raw`update membership m set until_day = ${last}::date from person p, member_group g where ${which} returning p.id`
				: raw`delete from membership m using person p, member_group g where ${which} returning p.id`
		);
		for (const { id } of rows)
			await writeAudit(tx, {
				actor,
				action: 'changed',
				kind: 'person',
				thing: id,
				before: { group, from, until },
				after: last ? { group, from, until: last, by: 'table' } : { group: null, by: 'table' }
			});
	}
}

/** All members with their memberships as a table; one without any has a line too. What begins like a formula is disarmed. */
export async function membersTable(): Promise<string> {
	const rows = await sql()<{ email: string; name: string; group: string | null; from: string | null; until: string | null }[]>`
		select p.email, p.name, g.name as "group", m.from_day::text as "from", m.until_day::text as until
		from person p left join membership m on m.person_id = p.id left join member_group g on g.id = m.group_id
		where p.role = 'member' and p.closed_at is null order by p.email, g.name, m.from_day`;
	const fields = ['email', 'name', 'group', 'from', 'until'];
	return (
		Papa.unparse({ fields, data: rows.map((r) => [r.email, r.name, r.group ?? '', r.from ?? '', r.until ?? '']) }, { newline: '\r\n', escapeFormulae: true }) +
		'\r\n'
	);
}

/** Column numbers by meaning from a query, as in `email=0&name=2`; null where none is given. */
export function mappingFrom(query: URLSearchParams): Mapping | undefined {
	const given = meanings.filter((m) => /^\d{1,3}$/.test(query.get(m) ?? ''));
	return given.length ? Object.fromEntries(given.map((m) => [m, Number(query.get(m))])) : undefined;
}
