// Members from a table: which column means what, and what each line would change. Reading the file and writing the rows are the server's.
import { isDay } from '../access/hours';
import { dayAfter } from '../readership/period';
import { asLine } from '../text/line';
import { isAddress } from './addresses';

/** What a column can mean. `name` or both halves of it; the rest may be missing. */
export const meanings = ['email', 'name', 'given', 'family', 'group', 'from', 'until'] as const;
export type Meaning = (typeof meanings)[number];

/** Which column (from 0) has which meaning. */
export type Mapping = Partial<Record<Meaning, number>>;

/** How days are written: 2026-12-31, 31/12/2026 or 12/31/2026 (also with dots and dashes). */
export const dayOrders = ['iso', 'day-first', 'month-first'] as const;
export type DayOrder = (typeof dayOrders)[number];

const headings: Record<Meaning, RegExp> = {
	email: /^e?[\s_-]*mail(?:[\s_-]*address)?$|^address e-?mail$/,
	name: /^(?:full |display )?name$|^member$|^person$/,
	given: /^(?:first|given|fore)[\s_-]*names?$/,
	family: /^(?:last|family|sur)[\s_-]*name$/,
	group: /^groups?$|^tier$|^committee$|^membership$/,
	from: /^(?:from|since|start(?:s|ed)?|begin(?:s)?|joined)(?:[\s_-]*(?:day|date|on))?$|^valid[\s_-]*from$/,
	until: /^(?:until|to|end(?:s)?|expir(?:y|es|ation)|lapses|valid[\s_-]*(?:until|to))(?:[\s_-]*(?:day|date|on))?$/
};

/** What the columns seem to mean by their headings; the first fitting column wins. */
export function guessMapping(header: readonly string[]): Mapping {
	const mapping: Mapping = {};
	header.forEach((text, i) => {
		const plain = text.trim().toLowerCase();
		for (const meaning of meanings) if (mapping[meaning] === undefined && headings[meaning].test(plain)) mapping[meaning] = i;
	});
	return mapping;
}

/** How the days of a column seem to be written: a part over 12 tells which one the day is. */
export function guessDayOrder(values: readonly string[]): DayOrder {
	for (const value of values) {
		const m = /^(\d{1,2})[/.-](\d{1,2})[/.-]\d{4}$/.exec(value.trim());
		if (m && Number(m[1]) > 12) return 'day-first';
		if (m && Number(m[2]) > 12) return 'month-first';
	}
	return values.some((v) => /^\d{1,2}[/.-]\d{1,2}[/.-]\d{4}$/.test(v.trim())) ? 'day-first' : 'iso';
}

/** A day as YYYY-MM-DD; null for an empty cell, undefined for what is no day. */
export function readDay(text: string, order: DayOrder): string | null | undefined {
	const plain = text.trim();
	if (!plain) return null;
	if (isDay(plain)) return plain;
	const m = /^(\d{1,2})[/.-](\d{1,2})[/.-](\d{4})$/.exec(plain);
	if (!m || order === 'iso') return undefined;
	const [day, month] = order === 'day-first' ? [m[1]!, m[2]!] : [m[2]!, m[1]!];
	const read = `${m[3]}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
	return isDay(read) ? read : undefined;
}

export interface KnownPerson {
	readonly email: string;
	readonly name: string;
	readonly staff: boolean;
	/** By the group's address. */
	readonly memberships: readonly { readonly group: string; readonly from: string | null; readonly until: string | null }[];
}

export interface KnownGroup {
	readonly slug: string;
	readonly name: string;
}

/** What one line would do. `line` counts from 1, the heading being line 1. */
export type PlannedLine =
	| { readonly line: number; readonly kind: 'wrong'; readonly trouble: string }
	| {
			readonly line: number;
			readonly kind: 'added' | 'changed' | 'same';
			readonly email: string;
			readonly name: string;
			/** The name before, where it changes. */
			readonly formerName?: string;
			readonly group: string | null;
			readonly from: string | null;
			readonly until: string | null;
			/** The days of the membership that the line changes, or leaves as it is; null where it is new. */
			readonly former?: { readonly from: string | null; readonly until: string | null } | null;
	  };

/** A membership that a table does not have any more. */
export interface EndedMembership {
	readonly email: string;
	readonly name: string;
	/** The group's address. */
	readonly group: string;
	readonly from: string | null;
	readonly until: string | null;
	/** The day that becomes its last, the one before today; null where it has not begun by then, and goes without having been. */
	readonly last: string | null;
}

export interface Plan {
	readonly lines: readonly PlannedLine[];
	readonly added: number;
	readonly changed: number;
	readonly same: number;
	readonly wrong: number;
	/** Groups named in the table that there are none of yet. */
	readonly newGroups: readonly string[];
	/** Memberships that have an end and would have none. */
	readonly endless: number;
	/** Memberships that end, where that is asked for: of the groups that the table names, those of people whom it does not have in them. */
	readonly ended: readonly EndedMembership[];
}

/** What of a group is not in a table ends with the day before `today`. */
export interface Ending {
	/** YYYY-MM-DD in the site's zone. */
	readonly today: string;
	/** Addresses of groups that the table has whole, beside those it names: a table without lines empties them. */
	readonly groups?: readonly string[];
}

/** The cells of a line; a cell that is not there says nothing, and leaves what stands. */
type Row = readonly (string | undefined)[];

/**
 * What a table would change, line by line; nothing is ever taken away by it unless `end` asks for that. A column that is not there changes nothing: days stay as they
 * are, and are open for somebody new. An empty cell in a column that is there clears: a membership without an until day has no end. A person may stand on several lines, one for each membership; where they have one membership of a group
 * and one line about it, the line changes its days.
 * With `makeGroups`, groups that do not exist are made; without, naming one is wrong.
 */
export function planMembers(
	rows: readonly Row[],
	mapping: Mapping,
	options: { dayOrder: DayOrder; makeGroups: boolean; people: readonly KnownPerson[]; groups: readonly KnownGroup[]; end?: Ending }
): Plan {
	const people = new Map(options.people.map((p) => [p.email, { ...p, fresh: false }]));
	const groups = new Map(options.groups.flatMap((g) => [[g.slug.toLowerCase(), g.slug] as const, [g.name.toLowerCase(), g.slug] as const]));
	const newGroups: string[] = [];
	const seen = new Map<string, number>();
	const cellOf = (row: Row, meaning: Meaning) => (mapping[meaning] === undefined ? '' : asLine(row[mapping[meaning]] ?? ''));
	/** Whether a line says anything in a column, be it that it is empty. */
	const isThere = (row: Row, meaning: Meaning) => mapping[meaning] !== undefined && row[mapping[meaning]] !== undefined;
	const about = (row: Row) => `${cellOf(row, 'email')} ${cellOf(row, 'group')}`.toLowerCase();
	const linesAbout = new Map<string, number>();
	for (const row of rows) linesAbout.set(about(row), (linesAbout.get(about(row)) ?? 0) + 1);

	const plan = (row: Row, line: number): PlannedLine => {
		const cell = (meaning: Meaning) => cellOf(row, meaning);
		const wrong = (trouble: string): PlannedLine => ({ line, kind: 'wrong', trouble });
		const email = cell('email').toLowerCase();
		if (!email) return wrong('There is no mail address.');
		if (!isAddress(email)) return wrong(`“${email}” is not a mail address.`);
		const name = cell('name') || asLine(`${cell('given')} ${cell('family')}`);
		if (name.length > 120) return wrong('The name is longer than 120 characters.');
		const given = { from: readDay(cell('from'), options.dayOrder), until: readDay(cell('until'), options.dayOrder) };
		if (given.from === undefined) return wrong(`“${cell('from')}” is not a day.`);
		if (given.until === undefined) return wrong(`“${cell('until')}” is not a day.`);

		const named = cell('group');
		let group: string | null = null;
		if (named) {
			group = groups.get(named.toLowerCase()) ?? null;
			if (!group) {
				if (!options.makeGroups) return wrong(`There is no group “${named}”.`);
				if (named.length > 120) return wrong('The group’s name is longer than 120 characters.');
				newGroups.push(named);
				groups.set(named.toLowerCase(), named);
				group = named;
			}
		} else if (given.from || given.until) return wrong('There are days of a membership, but no group.');

		const there = people.get(email);
		if (there?.staff) return wrong(`${email} belongs to the staff; staff need no membership.`);
		if (!there && !name) return wrong('Somebody new needs a name.');
		// somebody's one membership of a group, and one line about it: the line changes it. Several spans stand beside each other.
		const theirs = group ? (there?.memberships.filter((m) => m.group === group) ?? []) : [];
		const says = { from: isThere(row, 'from'), until: isThere(row, 'until') };
		const known = theirs.find((m) => (!says.from || m.from === given.from) && (!says.until || m.until === given.until));
		const former = known ?? (theirs.length === 1 && linesAbout.get(about(row)) === 1 ? theirs[0]! : null);
		const from = says.from ? given.from : (former?.from ?? null);
		const until = says.until ? given.until : (former?.until ?? null);
		if (from && until && from > until) return wrong('The membership ends before it begins.');
		const key = `${email} ${group ?? ''} ${from ?? ''} ${until ?? ''}`;
		const before = seen.get(key);
		if (before !== undefined) return wrong(`The same as line ${before}: ${email}${named ? ` in ${named}` : ''}.`);
		seen.set(key, line);
		const membershipChanges = group !== null && !known;
		const nameChanges = there !== undefined && name !== '' && there.name !== name;
		if (!there) people.set(email, { email, name, staff: false, memberships: [], fresh: true });
		else if (nameChanges && there.fresh) return wrong(`Another line calls ${email} “${there.name}”.`);
		else if (nameChanges) people.set(email, { ...there, name, fresh: true });
		const kind = !there ? 'added' : nameChanges || membershipChanges ? 'changed' : 'same';
		return {
			line,
			kind,
			email,
			name: name || (there?.name ?? ''),
			...(nameChanges ? { formerName: there.name } : {}),
			group,
			from,
			until,
			...(group === null ? {} : { former: former && { from: former.from, until: former.until } })
		};
	};
	const lines = rows.map((row, i) => (row.every((c) => !c?.trim()) ? null : plan(row, i + 2))).filter((l) => l !== null);
	const endless = lines.filter((l) => l.kind === 'changed' && l.former?.until && l.until === null).length;
	const count = (kind: PlannedLine['kind']) => lines.filter((l) => l.kind === kind).length;
	return {
		lines,
		added: count('added'),
		changed: count('changed'),
		same: count('same'),
		wrong: count('wrong'),
		newGroups,
		endless,
		ended: options.end ? endedBy(lines, options.people, options.end) : []
	};
}

/** The memberships that are not over, of groups that the lines name, whose people have no line in that group. */
function endedBy(lines: readonly PlannedLine[], people: readonly KnownPerson[], { today, groups = [] }: Ending): EndedMembership[] {
	const there = new Set<string>();
	const named = new Set(groups);
	for (const line of lines) {
		if (line.kind === 'wrong' || !line.group) continue;
		named.add(line.group);
		there.add(`${line.group} ${line.email}`);
	}
	const last = dayAfter(today, -1);
	return people.flatMap(({ email, name, staff, memberships }) =>
		staff
			? []
			: memberships
					.filter(({ group, until }) => named.has(group) && !there.has(`${group} ${email}`) && (until === null || until >= today))
					.map((m) => ({ email, name, ...m, last: m.from !== null && m.from > last ? null : last }))
	);
}
