import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { guessDayOrder, guessMapping, planMembers, readDay, type KnownPerson, type Mapping } from './csv';

const groups = [
	{ slug: 'friends', name: 'Friends' },
	{ slug: 'lock-wardens', name: 'Lock wardens' }
];
const ada: KnownPerson = { email: 'ada@example.org', name: 'Ada Heron', staff: false, memberships: [{ group: 'friends', from: '2026-01-01', until: null }] };
const edda: KnownPerson = { email: 'edda@example.org', name: 'Edda', staff: true, memberships: [] };
const mapping: Mapping = { email: 0, name: 1, group: 2, from: 3, until: 4 };
const plan = (rows: string[][], more: Partial<Parameters<typeof planMembers>[2]> = {}) =>
	planMembers(rows, mapping, { dayOrder: 'day-first', makeGroups: false, people: [ada, edda], groups, ...more });

describe('the columns of a table of members', () => {
	it('are known by their headings', () => {
		expect(guessMapping(['Name', 'E-mail', 'Group', 'From', 'Until'])).toEqual({ name: 0, email: 1, group: 2, from: 3, until: 4 });
		expect(guessMapping(['First name', 'Surname', 'email address', 'Tier', 'Joined', 'Expires', 'Notes'])).toEqual({
			given: 0,
			family: 1,
			email: 2,
			group: 3,
			from: 4,
			until: 5
		});
		expect(guessMapping(['x', ''])).toEqual({});
	});
	it('days are read as they are written', () => {
		expect(guessDayOrder(['01/02/2026', '25/02/2026'])).toBe('day-first');
		expect(guessDayOrder(['01/02/2026', '02/25/2026'])).toBe('month-first');
		expect(guessDayOrder(['2026-02-25', ''])).toBe('iso');
		expect(readDay('1.2.2026', 'day-first')).toBe('2026-02-01');
		expect(readDay('1/2/2026', 'month-first')).toBe('2026-01-02');
		expect(readDay('2026-02-28', 'month-first')).toBe('2026-02-28');
		expect(readDay('31/02/2026', 'day-first')).toBeUndefined();
		expect(readDay('1/2/2026', 'iso')).toBeUndefined();
		expect(readDay(' ', 'iso')).toBeNull();
	});
	it('a part over twelve tells the day’s place, wherever it stands; where none does, the day goes first', () => {
		expect(guessDayOrder(['', '12/12/2026', ' 13/12/2026 '])).toBe('day-first');
		expect(guessDayOrder(['12/12/2026', '12/13/2026'])).toBe('month-first');
		expect(guessDayOrder(['12.11.2026'])).toBe('day-first');
		expect(guessDayOrder(['12-11-2026', '2026-01-01'])).toBe('day-first');
		expect(guessDayOrder(['', 'soon', '1/1/26'])).toBe('iso');
	});
	it('a heading is known whatever its case and spaces, and the first of two counts', () => {
		expect(guessMapping([' NAME ', 'Full name', 'e_mail', 'Mail address'])).toEqual({ name: 0, email: 2 });
		expect(guessMapping(['Valid from', 'Valid to', 'Committee', 'Given names'])).toEqual({ from: 0, until: 1, group: 2, given: 3 });
	});
	it('any day comes back from any way of writing it', () => {
		fc.assert(
			fc.property(fc.date({ min: new Date('1900-01-01'), max: new Date('2199-12-31'), noInvalidDate: true }), (date) => {
				const day = date.toISOString().slice(0, 10);
				const [y, m, d] = day.split('-');
				expect(readDay(`${d}/${m}/${y}`, 'day-first')).toBe(day);
				expect(readDay(`${Number(m)}.${Number(d)}.${y}`, 'month-first')).toBe(day);
			})
		);
	});
});

describe('what a table of members would change', () => {
	it('adds, changes, leaves alone', () => {
		const { lines, ...counts } = plan([
			['BEN@example.org', ' Ben  Coot ', 'lock WARDENS', '1/3/2026', ''],
			['ada@example.org', 'Ada Heron', 'Friends', '01/01/2026', ''],
			['ada@example.org', '', 'Lock wardens', '', '31/12/2026'],
			['', '', '', '', '']
		]);
		expect(lines).toEqual([
			{ line: 2, kind: 'added', email: 'ben@example.org', name: 'Ben Coot', group: 'lock-wardens', from: '2026-03-01', until: null, former: null },
			{
				line: 3,
				kind: 'same',
				email: 'ada@example.org',
				name: 'Ada Heron',
				group: 'friends',
				from: '2026-01-01',
				until: null,
				former: { from: '2026-01-01', until: null }
			},
			{ line: 4, kind: 'changed', email: 'ada@example.org', name: 'Ada Heron', group: 'lock-wardens', from: null, until: '2026-12-31', former: null }
		]);
		expect(counts).toEqual({ added: 1, changed: 1, same: 1, wrong: 0, newGroups: [], endless: 0, ended: [] });
	});
	it('leaves days alone whose column is not there, and tells how many memberships become endless where its cells are empty', () => {
		const ended = { ...ada, memberships: [{ group: 'friends', from: '2026-01-01', until: '2026-12-31' }] };
		const noDays = { email: 0, name: 1, group: 2 };
		for (const [columns, row] of [
			[noDays, ['ada@example.org', 'Ada Heron', 'Friends']],
			[{ ...noDays, from: 3 }, ['ada@example.org', 'Ada Heron', 'Friends', '1/1/2026']],
			[mapping, ['ada@example.org', 'Ada Heron', 'Friends']]
		] as const) {
			const made = plan([[...row]], { people: [ended] });
			const looked = planMembers([[...row]], columns, { dayOrder: 'day-first', makeGroups: false, people: [ended], groups });
			for (const { lines, endless } of columns === mapping ? [made] : [looked])
				expect([lines[0], endless]).toMatchObject([{ kind: 'same', from: '2026-01-01', until: '2026-12-31' }, 0]);
		}
		const moved = planMembers(
			[['ada@example.org', 'Ada Heron', 'Friends', '1/6/2026']],
			{ ...noDays, from: 3 },
			{ dayOrder: 'day-first', makeGroups: false, people: [ended], groups }
		);
		expect(moved.lines[0]).toMatchObject({ kind: 'changed', from: '2026-06-01', until: '2026-12-31' });
		const cleared = plan([['ada@example.org', 'Ada Heron', 'Friends', '1/1/2026', '']], { people: [ended] });
		expect([cleared.lines[0], cleared.endless]).toMatchObject([{ kind: 'changed', until: null }, 1]);
	});
	it.each([
		[['', 'Nobody', '', '', ''], 'There is no mail address.'],
		[['nobody', 'Nobody', '', '', ''], '“nobody” is not a mail address.'],
		[['new@example.org', '', '', '', ''], 'Somebody new needs a name.'],
		[['new@example.org', 'New', 'Divers', '', ''], 'There is no group “Divers”.'],
		[['new@example.org', 'New', 'Friends', '2026-31-01', ''], '“2026-31-01” is not a day.'],
		[['new@example.org', 'New', 'Friends', '2/1/2026', '1/1/2026'], 'The membership ends before it begins.'],
		[['new@example.org', 'New', '', '2/1/2026', ''], 'There are days of a membership, but no group.'],
		[['edda@example.org', 'Edda', 'Friends', '', ''], 'edda@example.org belongs to the staff; staff need no membership.']
	])('%j is wrong: %s', (row, trouble) => expect(plan([row]).lines).toEqual([{ line: 2, kind: 'wrong', trouble }]));
	const troubles = (rows: string[][], more: Partial<Parameters<typeof planMembers>[2]> = {}) =>
		plan(rows, more).lines.map((l) => (l.kind === 'wrong' ? l.trouble : l.kind));
	it('a name and a group’s name have at most 120 characters, a mail address 320', () => {
		const [most, more] = ['n'.repeat(120), 'n'.repeat(121)];
		expect(
			troubles([
				['a@example.org', most, '', '', ''],
				['b@example.org', more, '', '', '']
			])
		).toEqual(['added', 'The name is longer than 120 characters.']);
		expect(
			troubles(
				[
					['a@example.org', 'A', most, '', ''],
					['b@example.org', 'B', more, '', '']
				],
				{ makeGroups: true }
			)
		).toEqual(['added', 'The group’s name is longer than 120 characters.']);
		const long = (n: number) => `${'a'.repeat(n - '@example.org'.length)}@example.org`;
		expect(
			troubles([
				[long(320), 'A', '', '', ''],
				[long(321), 'B', '', '', '']
			])[0]
		).toBe('added');
		expect(troubles([[long(321), 'B', '', '', '']])[0]).toContain('is not a mail address');
	});
	it('a membership of one day is one, and both of its days are looked at', () => {
		expect(troubles([['a@example.org', 'A', 'Friends', '1/1/2026', '1/1/2026']])).toEqual(['added']);
		expect(
			troubles([
				['a@example.org', 'A', 'Friends', '', 'soon'],
				['a@example.org', 'A', 'Friends', 'soon', '']
			])
		).toEqual(['“soon” is not a day.', '“soon” is not a day.']);
		expect(troubles([['a@example.org', 'A', '', '', '1/1/2026']])).toEqual(['There are days of a membership, but no group.']);
	});
	it('lines about one person differ by group and days; the same line says which it repeats', () => {
		expect(
			troubles([
				['x@example.org', 'X', '', '', ''],
				['x@example.org', 'X', 'Friends', '1/1/2026', ''],
				['x@example.org', 'X', 'Friends', '', '1/1/2027'],
				['x@example.org', 'X', 'Lock wardens', '1/1/2026', ''],
				['X@example.org', 'X', '', '', '']
			])
		).toEqual(['added', 'changed', 'changed', 'changed', 'The same as line 2: x@example.org.']);
	});
	it('a name that changes tells the one before; one that is left out stays; halves are put together', () => {
		expect(plan([['ada@example.org', 'Ada  Crane', '', '', '']]).lines).toEqual([
			{ line: 2, kind: 'changed', email: 'ada@example.org', name: 'Ada Crane', formerName: 'Ada Heron', group: null, from: null, until: null }
		]);
		// the same new name again is no second change
		expect(
			troubles([
				['ada@example.org', 'Ada Crane', '', '', ''],
				['ada@example.org', 'Ada Crane', 'Friends', '1/1/2026', '']
			])
		).toEqual(['changed', 'same']);
		expect(
			troubles([
				['ada@example.org', 'Ada Crane', '', '', ''],
				['ada@example.org', 'Ada Stork', 'Friends', '1/1/2026', '']
			])
		).toEqual(['changed', 'Another line calls ada@example.org “Ada Crane”.']);
		expect(plan([['ada@example.org', '', '', '', '']]).lines[0]).toEqual({
			...{ line: 2, kind: 'same', email: 'ada@example.org', name: 'Ada Heron', group: null, from: null, until: null }
		});
		const halves = planMembers(
			[['b@example.org', ' Ben ', ' van  Coot ']],
			{ email: 0, given: 1, family: 2 },
			{ dayOrder: 'iso', makeGroups: false, people: [], groups: [] }
		);
		expect(halves.lines[0]).toMatchObject({ kind: 'added', name: 'Ben van Coot' });
	});
	it('a group is known by its name or its address; lines that are too short are read as far as they go', () => {
		expect(plan([['a@example.org', 'A', 'LOCK-wardens', '', '']]).lines[0]).toMatchObject({ group: 'lock-wardens' });
		expect(plan([['a@example.org', 'A']]).lines[0]).toMatchObject({ kind: 'added', group: null });
		expect(plan([['', ' ']]).lines).toEqual([]);
	});
	it('where two lines are about one membership, neither moves its days', () => {
		const rows = [
			['ada@example.org', '', 'friends', '1/1/2027', ''],
			['ADA@example.org', '', 'FRIENDS', '1/1/2028', '']
		];
		expect(plan(rows).lines.map((l) => l.kind !== 'wrong' && l.former)).toEqual([null, null]);
	});
	it('the same membership twice, and two names for one address, are wrong on the later line', () => {
		expect(
			plan([
				['x@example.org', 'X', 'Friends', '', ''],
				['x@example.org', 'X', 'friends', '', ''],
				['x@example.org', 'Y', 'Lock wardens', '', '']
			]).lines.map((l) => (l.kind === 'wrong' ? l.trouble : l.kind))
		).toEqual(['added', 'The same as line 2: x@example.org in friends.', 'Another line calls x@example.org “X”.']);
	});
	it('several spans of one group stand beside each other', () => {
		const rows = [
			['ada@example.org', '', 'Friends', '01/01/2026', ''],
			['ada@example.org', '', 'Friends', '01/01/2027', '']
		];
		expect(plan(rows).lines.map((l) => [l.kind, l.kind !== 'wrong' && l.former])).toEqual([
			['same', { from: '2026-01-01', until: null }],
			['changed', null]
		]);
		expect(plan(rows.slice(1)).lines[0]).toMatchObject({ kind: 'changed', former: { from: '2026-01-01', until: null }, from: '2027-01-01' });
	});
	it('makes groups where that is wanted, each once', () => {
		const made = plan(
			[
				['x@example.org', 'X', 'Divers', '', ''],
				['y@example.org', 'Y', 'divers', '', '']
			],
			{ makeGroups: true }
		);
		expect(made).toMatchObject({ added: 2, wrong: 0, newGroups: ['Divers'] });
	});
	it('ends what it does not have any more, where that is asked for: of the groups that it names, and only what is not over', () => {
		const people: KnownPerson[] = [
			ada,
			edda,
			{ email: 'ben@example.org', name: 'Ben', staff: false, memberships: [{ group: 'friends', from: '2026-01-01', until: '2026-12-31' }] },
			{
				email: 'cem@example.org',
				name: 'Cem',
				staff: false,
				memberships: [
					{ group: 'friends', from: null, until: '2026-11-29' },
					{ group: 'friends', from: '2026-11-30', until: null },
					{ group: 'lock-wardens', from: null, until: null }
				]
			}
		];
		const rows = [['ada@example.org', '', 'Friends', '', '']];
		const today = '2026-11-30';
		expect(plan(rows, { people }).ended).toEqual([]);
		expect(plan(rows, { people, end: { today } }).ended).toEqual([
			{ email: 'ben@example.org', name: 'Ben', group: 'friends', from: '2026-01-01', until: '2026-12-31', last: '2026-11-29' },
			// begins today: it goes without having been
			{ email: 'cem@example.org', name: 'Cem', group: 'friends', from: '2026-11-30', until: null, last: null }
		]);
		// a table without lines empties the groups that it has whole, and no others
		expect(plan([], { people, end: { today } }).ended).toEqual([]);
		expect(plan([], { people, end: { today, groups: ['lock-wardens'] } }).ended.map((m) => m.email)).toEqual(['cem@example.org']);
	});
	it('a cell that is not there says nothing of days', () => {
		const kept = planMembers([['ada@example.org', undefined, 'friends']], mapping, { dayOrder: 'iso', makeGroups: false, people: [ada], groups });
		expect(kept).toMatchObject({ same: 1, changed: 0, wrong: 0 });
		const cleared = planMembers([['ada@example.org', undefined, 'friends', '', undefined]], mapping, {
			dayOrder: 'iso',
			makeGroups: false,
			people: [ada],
			groups
		});
		expect(cleared.lines).toMatchObject([{ kind: 'changed', from: null, until: null, former: { from: '2026-01-01' } }]);
	});
	it('done once, a table changes nothing more', () => {
		const row = fc.tuple(
			fc.constantFrom('a@example.org', 'b@example.org', 'ada@example.org'),
			fc.constantFrom('A', 'B'),
			fc.constantFrom('', 'Friends', 'Lock wardens'),
			fc.constantFrom('', '1/1/2026'),
			fc.constantFrom('', '31/12/2026')
		);
		fc.assert(
			fc.property(fc.array(row, { maxLength: 8 }), (rows) => {
				const good = rows.filter((_, i) => plan(rows).lines.some((l) => l.line === i + 2 && l.kind !== 'wrong'));
				const first = plan(good);
				const people = new Map([ada, edda].map((p) => [p.email, { ...p, memberships: [...p.memberships] }]));
				for (const l of first.lines) {
					if (l.kind === 'wrong') continue;
					const p = people.get(l.email) ?? { email: l.email, name: '', staff: false, memberships: [] };
					people.set(l.email, {
						...p,
						name: l.name,
						memberships: l.group
							? [
									...p.memberships.filter((m) => !(m.group === l.group && l.former && m.from === l.former.from && m.until === l.former.until)),
									{ group: l.group, from: l.from, until: l.until }
								]
							: p.memberships
					});
				}
				const again = plan(good, { people: [...people.values()] });
				expect(again.added + again.changed).toBe(0);
			})
		);
	});
});
