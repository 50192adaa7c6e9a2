import { expect, it } from 'vitest';
import { catalogue } from '../errors';
import { spanOf } from './hours';
import { boundWords, sentence, whoWords, type Reach } from './reach';
import { keptForWords } from './turned-away';
import { listWords } from '../text/list';
import { refusalWords } from './refusal';

const zone = 'Europe/London';
const now = Date.parse('2026-11-24T12:00Z');
const keyed: Reach = {
	position: 'keyed',
	allMembers: false,
	groups: ['Lock wardens'],
	people: [],
	count: 14,
	hours: { from: null, until: null },
	allow: { save: true, print: true },
	listed: true,
	announced: false,
	follows: null
};
const say = (change: Partial<Reach>) => sentence({ ...keyed, ...change }, now, zone);

it('says who may do what, with the number of people', () => {
	expect(say({})).toBe('Lock wardens, 14 people, may read, save and print.');
	expect(say({ count: 1, allow: { save: false, print: true } })).toBe('Lock wardens, 1 person, may read and print.');
	expect(say({ allMembers: true, count: 1214 })).toBe('All members, 1,214 people, may read, save and print.');
	expect(say({ groups: [] })).toBe('Nobody but staff may read, save and print: no group and no person is admitted yet.');
	expect(say({ position: 'shut' })).toBe('Only staff may open it.');
	expect(say({ position: 'open', listed: false })).toBe('Everyone may read, save and print; it is not listed.');
	expect(say({ position: 'ajar' })).toContain('Whoever has the address may read, save and print; it is not listed');
	expect(say({ follows: 'Volunteering', position: 'open' })).toBe('Follows “Volunteering”: Everyone may read, save and print.');
	expect(say({ setAside: true })).toBe('Set aside: only staff may open it.');
});
it('says hours by their days, the last one included', () => {
	expect(say({ hours: spanOf(null, '2027-03-31', zone) })).toBe('Lock wardens, 14 people, may read, save and print until 31 March 2027.');
	expect(say({ hours: spanOf('2026-12-01', null, zone) })).toBe('Lock wardens, 14 people, may read, save and print from 1 December 2026.');
	expect(say({ hours: spanOf(null, '2026-11-01', zone) })).toBe('Closed since 1 November 2026: only staff may open it.');
	expect(say({ hours: spanOf(null, '2026-11-24T15:30:00Z', zone) })).toContain('until 15:30 on 24 November 2026');
});
it('names people one by one up to three, then counts them', () => {
	expect(whoWords({ ...keyed, groups: [], people: ['Ada', 'Ben'] })).toBe('Ada, Ben');
	expect(whoWords({ ...keyed, groups: [], people: ['Ada', 'Ben', 'Cem', 'Dot'] })).toBe('4 named people');
});
it('lists as people do', () => {
	expect([listWords([]), listWords(['a']), listWords(['a', 'b']), listWords(['a', 'b', 'c'])]).toEqual(['', 'a', 'a and b', 'a, b and c']);
});
it('a shut door, one set aside and nothing at all are told apart by nobody', () => {
	expect(refusalWords('set-aside', zone)).toEqual(refusalWords('shut', zone));
	expect([catalogue.shut, catalogue['set-aside']].map((c) => [c.status, c.words])).toEqual(
		Array(2).fill([catalogue['not-found'].status, catalogue['not-found'].words])
	);
});
it('offers signing in only where it could help', () => {
	expect(refusalWords('sign-in', zone).offersSignIn).toBe(true);
	for (const code of ['shut', 'not-yet', 'closed', 'not-admitted', 'membership-lapsed', 'save-not-allowed'] as const)
		expect(refusalWords(code, zone, { at: now }).offersSignIn, code).toBe(false);
});
it('who is meant is said short, for a table', () => {
	expect((['shut', 'keyed', 'ajar', 'open'] as const).map((position) => whoWords({ ...keyed, position }))).toEqual([
		'Staff only',
		'Lock wardens',
		'With the address',
		'Everyone'
	]);
	expect(whoWords({ ...keyed, groups: ['Friends', 'Moorers'], people: ['Ada', 'Ben', 'Cem'] })).toBe('Friends, Moorers, Ada, Ben, Cem');
	expect(whoWords({ ...keyed, groups: [] })).toBe('Nobody yet');
});
it('a bound in the middle of a day is said with its time, one at its edge by the day, in each language in its way', () => {
	const [noon, midnight] = [Date.parse('2026-11-24T12:05Z'), Date.parse('2026-11-25T00:00Z')];
	expect([boundWords(noon, zone, 'until'), boundWords(midnight, zone, 'until'), boundWords(midnight, zone, 'from')]).toEqual([
		'12:05 on 24 November 2026',
		'24 November 2026',
		'25 November 2026'
	]);
	expect([boundWords(noon, zone, 'until', 'de'), boundWords(midnight, zone, 'until', 'de')]).toEqual(['24. November 2026, 12:05', '24. November 2026']);
	// an edge in one zone is none in another
	expect(boundWords(midnight, 'Asia/Kathmandu', 'from')).toBe('05:45 on 25 November 2026');
	expect(boundWords(midnight + 1, zone, 'from')).toBe('00:00 on 25 November 2026');
});
it('a refusal says the last day of what lapsed, the first of what comes, and the group where it is one’s own', () => {
	const until = spanOf(null, '2026-10-31', zone).until!;
	const from = spanOf('2026-12-01', null, zone).from!;
	expect(refusalWords('membership-lapsed', zone, { at: until }).words).toContain('31 October 2026');
	expect(refusalWords('key-lapsed', zone, { at: until }).words).toContain('31 October 2026');
	expect(refusalWords('membership-not-yet', zone, { at: from }).words).toContain('1 December 2026');
	expect(refusalWords('not-yet', zone, { at: from }).words).toContain('1 December 2026');
	expect(refusalWords('membership-lapsed', zone, { at: until, group: 'Lock wardens' }).words).toContain('Lock wardens');
	expect(refusalWords('membership-lapsed', zone, { at: until }).words).not.toContain('undefined');
	expect(refusalWords('not-admitted', zone, { group: 'Lock wardens' }).words).toBe(refusalWords('not-admitted', zone).words);
});
it('an announcement says for whom: groups by name, people never by theirs', () => {
	const kept = { allMembers: false, groups: ['Friends', 'Lock wardens'], people: 2 };
	expect(keptForWords(kept, 'en')).toBe('For Friends, Lock wardens, or people admitted by name');
	expect(keptForWords({ ...kept, allMembers: true, people: 0 }, 'en')).toBe('For all members');
	expect(keptForWords({ allMembers: false, groups: [], people: 0 }, 'en')).toBe('Kept for others');
	expect(keptForWords({ ...kept, people: 0 }, 'de')).toBe('Vorbehalten: Friends oder Lock wardens');
});
