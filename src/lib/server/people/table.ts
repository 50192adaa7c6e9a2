// Members as a table (CSV, RFC 4180): brought in after a look at what would change, and taken out.
import Papa from 'papaparse';
import { eq, inArray, sql as raw } from 'drizzle-orm';
import { guessDayOrder, guessMapping, meanings, planMembers, type DayOrder, type KnownPerson, type Mapping, type Plan } from '#core/people/csv';
import { IanuaError } from '#core/errors';
import { db, sql } from '../db/client';
import { membership, person } from '../db/schema';
import { newId } from '../id';
import { writeAudit } from '../site/audit';
import { insertGroup } from './members';
import { groupIds, insertPerson, listGroups } from './directory';

/** Largest table taken, in bytes and lines. */
export const tableLimits = { bytes: 10 * 1024 * 1024, lines: 50_000 } as const;

export interface Table {
	readonly header: readonly string[];
	readonly rows: readonly (readonly string[])[];
	readonly encoding: 'UTF-8' | 'UTF-16' | 'Windows-1252';
	readonly delimiter: string;
}

/** What Windows-1252 has from 0x80 to 0x9f, where Latin-1 has control characters (WHATWG Encoding, index-windows-1252; Node 20 decodes it as Latin-1). */
const windows1252 = Array.from('€\x81‚ƒ„…†‡ˆ‰Š‹Œ\x8dŽ\x8f\x90‘’“”•–—˜™š›œ\x9džŸ');

/** The text of a table: UTF-8 or UTF-16 by its mark, UTF-8 where it is valid, else Windows-1252. */
function textOf(bytes: Uint8Array): { text: string; encoding: Table['encoding'] } {
	if ((bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff))
		return { text: new TextDecoder(bytes[0] === 0xff ? 'utf-16le' : 'utf-16be').decode(bytes), encoding: 'UTF-16' };
	try {
		return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
	} catch {
		return {
			text: Buffer.from(bytes)
				.toString('latin1')
				.replace(/[\x80-\x9f]/g, (c) => windows1252[c.charCodeAt(0) - 0x80]!),
			encoding: 'Windows-1252'
		};
	}
}

/** Reads a table. Throws `table-unreadable` with the line where quotes do not close or there is no line of headings. */
export function readTable(bytes: Uint8Array): Table {
	if (bytes.length > tableLimits.bytes) throw new IanuaError('body-too-large');
	const { text, encoding } = textOf(bytes);
	// guessed without empty lines, which count as lines of one field; read with them, so that lines keep their numbers
	const { delimiter } = Papa.parse<string[]>(text, { preview: 20, skipEmptyLines: true }).meta;
	const parsed = Papa.parse<string[]>(text, { delimiter, skipEmptyLines: false });
	const broken = parsed.errors.find((e) => e.type === 'Quotes');
	if (broken) throw new IanuaError('table-unreadable', { detail: `a quotation mark in line ${(broken.row ?? 0) + 1} is not closed` });
	if (text.includes('\0')) throw new IanuaError('table-unreadable', { detail: 'it is not a text' });
	// what was taken away from here with a sign before it, so that no program takes it for a formula, is read without that sign
	const [header, ...rows] = parsed.data.map((row) => row.map((cell) => cell.replace(/^'(?=[=+\-@\t\r])/, '')));
	if (!header || header.every((h) => h.trim() === '')) throw new IanuaError('table-unreadable', { detail: 'its first line has no headings' });
	if (rows.length > tableLimits.lines)
		throw new IanuaError('table-unreadable', { detail: `it has more than ${tableLimits.lines.toLocaleString('en-GB')} lines` });
	return { header, rows, encoding, delimiter: parsed.meta.delimiter };
}

export interface TableWish {
	readonly mapping?: Mapping;
	readonly dayOrder?: DayOrder;
	readonly makeGroups?: boolean;
}

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
export async function previewTable(table: Table, wish: TableWish): Promise<TablePreview> {
	const mapping = wish.mapping ?? guessMapping(table.header);
	const column = (at: number | undefined) => (at === undefined ? [] : table.rows.map((r) => r[at] ?? ''));
	const dayOrder = wish.dayOrder ?? guessDayOrder([...column(mapping.from), ...column(mapping.until)]);
	const [people, groups] = await Promise.all([knownPeople(), listGroups()]);
	const plan = planMembers(table.rows, mapping, { dayOrder, makeGroups: wish.makeGroups ?? false, people, groups });
	return { ...plan, header: table.header, encoding: table.encoding, mapping, dayOrder };
}

/** Carries a table out: all of it or, where any line is wrong, nothing. */
export async function bringInTable(table: Table, wish: TableWish, actor: string): Promise<TablePreview> {
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
	});
	return plan;
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
