// Counting by the COUNTER Code of Practice, release 5, section 7 (from memory), with the model's worked cases, properties, and a second,
// naive implementation that looks at all pairs.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	counted,
	deviceOf,
	devices,
	doubles,
	entryKinds,
	isThrough,
	noFigures,
	standings,
	sumDay,
	type EntryKind,
	type Figures,
	type RefusedSum,
	type Summable
} from './counting';
import { CountMinSketch } from './count-min-sketch';
import { clockHour, hourIn } from './clock';
import { addDays, type DayFigures } from './days';
import { itemJson, itemReport, itemTable, monthHeading, monthsOf, wholeMonths } from './items';
import { dayAfter, daysIn, periodOf, piecesOf, series, sumSpanOf, stepOf } from './period';
import { cutAddress, keptOf, readershipOf } from './settings';
import { mailedDays, nextMailing } from './mailing';
import { isAwaited } from './receipt';
import { signedContent, waitAfter } from './webhook';
import { changeWords, documentAnswer, durationWords, memberAnswer, siteAnswer } from './words';

const entry = (at: number, more: Partial<Summable> = {}): Summable => ({
	at,
	kind: 'opened',
	reader: 'r',
	staff: false,
	robot: false,
	preload: false,
	placement: null,
	edition: 'e',
	person: null,
	key: null,
	device: 'computer',
	controlled: false,
	source: { kind: 'direct', page: null, outside: null },
	attention: null,
	reason: null,
	...more
});
const seconds = (...times: number[]) => times.map((s) => entry(s * 1000));
const left = (...times: number[]) => [...doubles(seconds(...times))].map((d) => d.double);
const counts = (...times: number[]) => left(...times).filter((d) => !d).length;
const clock = (text: string) => Date.parse(`2026-11-24T${text}Z`);
const utcHour = (at: number) => new Date(at).getUTCHours();

describe('double clicks', () => {
	it('10:01:00 and 10:01:29 count one, the later', () => expect(left(clock('10:01:00') / 1000, clock('10:01:29') / 1000)).toEqual([true, false]));
	it('10:01:00 and 10:01:35 count two', () => expect(counts(clock('10:01:00') / 1000, clock('10:01:35') / 1000)).toBe(2));
	it('0 s, 20 s, 40 s count one, at 40 s', () => expect(left(0, 20, 40)).toEqual([true, true, false]));
	it('0 s, 30 s one; 0 s, 31 s two', () => expect([counts(0, 30), counts(0, 31)]).toEqual([1, 2]));
	it('another reader or kind is no double, nor another placement that came into view', () => {
		const marks = (a: Partial<Summable>, b: Partial<Summable>) => [...doubles([entry(0, a), entry(5000, b)])].map((d) => d.double);
		expect(marks({}, { reader: 'x' })).toEqual([false, false]);
		expect(marks({}, { kind: 'saved' })).toEqual([false, false]);
		expect(marks({ kind: 'shown', placement: 'a' }, { kind: 'shown', placement: 'b' })).toEqual([false, false]);
		expect(marks({ kind: 'shown', placement: 'a' }, { kind: 'shown', placement: 'a' })).toEqual([true, false]);
	});
	it('what is told of reading is never a double', () =>
		expect([...doubles([entry(0, { kind: 'read' }), entry(5000, { kind: 'read' })])].some((d) => d.double)).toBe(false));
	it('a double click by staff or a robot takes nothing from anybody', () => {
		expect([...counted([entry(0), entry(5000, { staff: true })])].map((e) => e.at)).toEqual([0]);
		expect([...counted([entry(0), entry(5000)], new Set(['r']))]).toEqual([]);
	});
	it('holds no more than the last 30 s: what comes out is never further behind what went in', () => {
		const most = 20_000;
		let given = 0;
		function* many() {
			for (let i = 0; i < most; i++) yield entry((given = i * 1000), { reader: `r${i % 7}` });
		}
		let behind = 0;
		for (const { entry: e } of doubles(many())) if (given < (most - 1) * 1000) behind = Math.max(behind, given - e.at);
		expect(behind).toBe(31_000);
	});
});

/** All pairs: an entry is left out where another of the same reader and kind comes next within 30 s. */
function naive(entries: readonly Summable[], robots: ReadonlySet<string>): Summable[] {
	const people = entries.filter((e) => !e.staff && !e.robot && !e.preload && !robots.has(e.reader));
	return people.filter(
		(e, i) =>
			e.kind === 'read' ||
			!people.some(
				(o, j) => j > i && o.reader === e.reader && o.kind === e.kind && (e.kind !== 'shown' || o.placement === e.placement) && o.at - e.at <= 30_000
			)
	);
}

const anyEntry = fc.record({
	at: fc.integer({ min: 0, max: 4_000 }).map((s) => s * 1000),
	kind: fc.constantFrom(...entryKinds),
	reader: fc.constantFrom('a', 'b', 'c', 'busy'),
	staff: fc.integer({ min: 0, max: 9 }).map((n) => n === 0),
	robot: fc.integer({ min: 0, max: 9 }).map((n) => n === 0),
	preload: fc.integer({ min: 0, max: 9 }).map((n) => n === 0),
	placement: fc.constantFrom(null, 'p', 'q'),
	edition: fc.constantFrom('one', 'two'),
	person: fc.constant(null),
	key: fc.constantFrom(null, 'k'),
	device: fc.constantFrom(...devices),
	controlled: fc.boolean(),
	source: fc.constantFrom({ kind: 'direct', page: null, outside: null } as const, { kind: 'page', page: 'x', outside: null } as const),
	attention: fc.option(fc.array(fc.record({ page: fc.integer({ min: 1, max: 9 }), seconds: fc.integer({ min: 1, max: 50 }) }), { maxLength: 4 }), {
		nil: null
	}),
	reason: fc.constantFrom(null, 'sign-in' as const, 'not-admitted' as const)
});
const anyDay = fc.array(anyEntry, { maxLength: 80 }).map((list) => list.sort((a, b) => a.at - b.at) as Summable[]);

describe('a clock hour', () => {
	const day = { from: Date.parse('2026-10-24T23:00Z'), until: Date.parse('2026-10-26T00:00Z') };
	const refused = (at: string, zone: string, within = day) =>
		Object.values(clockHour(Date.parse(at), hourIn(zone), within)).map((t) => new Date(t).toISOString().slice(11, 16));
	it('goes from its first instant until the next begins; where clocks go back it is longer', () => {
		expect(refused('2026-10-25T12:34:56Z', 'Europe/London')).toEqual(['12:00', '13:00']);
		expect([refused('2026-10-25T00:30Z', 'Europe/London'), refused('2026-10-25T01:30Z', 'Europe/London')]).toEqual([
			['00:00', '02:00'],
			['00:00', '02:00']
		]);
		// Kathmandu is 5:45 ahead
		expect(refused('2026-10-25T12:00Z', 'Asia/Kathmandu')).toEqual(['11:15', '12:15']);
		// half an hour goes back: from half past one on, twice
		const howe = { from: Date.parse('2026-04-04T13:00Z'), until: Date.parse('2026-04-05T13:30Z') };
		expect(refused('2026-04-04T15:10Z', 'Australia/Lord_Howe', howe)).toEqual(['14:00', '15:30']);
	});
	it('goes no further than its day', () => {
		expect(refused('2026-10-24T23:10Z', 'Europe/London', { from: Date.parse('2026-10-24T23:00Z'), until: Date.parse('2026-10-24T23:30Z') })).toEqual([
			'23:00',
			'23:30'
		]);
	});
	it('holds every instant of it and none of another', () => {
		fc.assert(
			fc.property(fc.integer({ min: day.from, max: day.until - 1 }), fc.constantFrom('Europe/London', 'Asia/Kathmandu', 'America/St_Johns'), (at, zone) => {
				const hourOf = hourIn(zone);
				const { from, until } = clockHour(at, hourOf, day);
				expect(from <= at && at < until).toBe(true);
				for (let t = from; t < until; t += 60_000) expect(hourOf(t)).toBe(hourOf(at));
				if (from > day.from) expect(hourOf(from - 1)).not.toBe(hourOf(at));
				if (until < day.until) expect(hourOf(until)).not.toBe(hourOf(at));
			}),
			{ numRuns: 200 }
		);
	});
});

describe('counts in little memory', () => {
	it('are never too few, and exact for few names', () => {
		const names = fc.array(fc.tuple(fc.constantFrom('c:a', 'c:b', 'n:0', 'p:é'), fc.integer({ min: 1, max: 9 })), { maxLength: 40 });
		fc.assert(
			fc.property(names, (list) => {
				const [counts, exact] = [new CountMinSketch(), new Map<string, number>()];
				for (const [name, n] of list) {
					exact.set(name, (exact.get(name) ?? 0) + n);
					expect(counts.add(name, n)).toBe(Math.min(255, exact.get(name)!));
				}
			}),
			{ numRuns: 50 }
		);
	});
	it('of 200,000 readers who came once each take hardly any for one who came often', () => {
		const counts = new CountMinSketch();
		let [least, most] = [255, 0];
		for (let i = 0; i < 200_000; i++) {
			const n = counts.add(`c:reader-${i}`);
			[least, most] = [Math.min(least, n), Math.max(most, n)];
		}
		expect(least).toBe(1);
		expect(most).toBeLessThan(10);
		expect(counts.add('c:reader-7', 300)).toBe(255);
	});
});

describe('a day', () => {
	it('is what the naive count makes of it', () => {
		fc.assert(
			fc.property(anyDay, fc.integer({ min: 0, max: 4_000 }), (entries, end) => {
				const robots = new Set(['busy']);
				const until = end * 1000;
				const sum = sumDay(entries, until, utcHour, robots);
				const all = naive(entries, robots).filter((e) => e.at < until);
				const ofKinds = (...kinds: EntryKind[]) => all.filter((e) => kinds.includes(e.kind));
				const requests = ofKinds('opened', 'saved');
				const hoursOf = (some: readonly Summable[]) => new Set(some.map((e) => `${utcHour(e.at)} ${e.reader}`)).size;
				const byStaff = (kind: EntryKind) => entries.filter((e) => e.staff && !e.robot && !e.preload && e.at < until && e.kind === kind).length;
				expect(sum).toMatchObject({
					openings: ofKinds('opened').length,
					saves: ofKinds('saved').length,
					printed: ofKinds('printed').length,
					refusals: ofKinds('turned-away').length,
					knocks: ofKinds('knocked').length,
					keysUsed: ofKinds('key-used').length,
					shown: ofKinds('shown').length,
					looks: ofKinds('looked').length,
					controlled: requests.filter((e) => e.controlled).length,
					controlledLooks: ofKinds('looked').filter((e) => e.controlled).length,
					controlledUniqueRequests: hoursOf(requests.filter((e) => e.controlled)),
					controlledUniqueInvestigations: hoursOf(ofKinds('opened', 'saved', 'looked').filter((e) => e.controlled)),
					staffOpenings: byStaff('opened'),
					staffSaves: byStaff('saved'),
					uniqueRequests: hoursOf(requests),
					uniqueInvestigations: hoursOf(ofKinds('opened', 'saved', 'looked')),
					seconds: ofKinds('read').reduce((n, e) => n + (e.attention ?? []).reduce((m, a) => m + a.seconds, 0), 0)
				});
				const total = (numbers: readonly number[]) => numbers.reduce((a, b) => a + b, 0);
				expect(total(sum.hours)).toBe(requests.length);
				expect(total(sum.devices)).toBe(requests.length);
				expect(total(sum.sources.map((s) => s.openings + s.saves))).toBe(requests.length);
				expect(total(sum.sources.map((s) => s.shown))).toBe(sum.shown);
				expect(new Set(sum.readers.filter((r) => r.openings + r.saves).map((r) => r.reader)).size).toBe(new Set(requests.map((e) => e.reader)).size);
				const away = (sum: Pick<RefusedSum, 'reason' | 'reader' | 'key'>, page: string | null) => `${sum.reason} ${page} ${sum.reader} ${sum.key}`;
				const refused = new Map<string, [number, number]>();
				for (const e of ofKinds('turned-away')) refused.set(away(e, e.source.page), [(refused.get(away(e, e.source.page))?.[0] ?? 0) + 1, e.at]);
				expect(new Map(sum.refused.map((r) => [away(r, r.page), [r.times, r.lastAt]]))).toEqual(refused);
				for (const r of sum.readers) expect(r.seconds).toBe(total([...r.pages.values()]));
				expect(total(sum.readers.map((r) => r.seconds))).toBe(sum.seconds);
			}),
			{ numRuns: 400 }
		);
	});
	it('says of each reader and edition, and of each place they came from, what the naive count says of it', () => {
		fc.assert(
			fc.property(anyDay, (entries) => {
				const sum = sumDay(entries, Infinity, utcHour);
				const all = naive(entries, new Set());
				const countOf = (some: readonly Summable[], kind: EntryKind) => some.filter((e) => e.kind === kind).length;
				const grouped = <T>(name: (item: T) => string, list: readonly T[]) => {
					const groups = new Map<string, T[]>();
					for (const e of list) groups.set(name(e), [...(groups.get(name(e)) ?? []), e]);
					return groups;
				};
				const readerName = (r: { reader: string; edition: string }) => `${r.reader} of ${r.edition}`;
				const counting = all.filter((e) => ['opened', 'saved', 'printed', 'read'].includes(e.kind));
				const readers = grouped<Summable>(readerName, counting);
				expect(sum.readers.map(readerName)).toEqual([...readers.keys()]);
				for (const r of sum.readers) {
					const own = readers.get(readerName(r))!;
					const pages = new Map<number, number>();
					for (const e of own) if (e.kind === 'read') for (const a of e.attention ?? []) pages.set(a.page, (pages.get(a.page) ?? 0) + a.seconds);
					expect(r).toEqual({
						reader: own[0]!.reader,
						edition: own[0]!.edition,
						person: null,
						key: own.find((e) => e.key)?.key ?? null,
						openings: countOf(own, 'opened'),
						saves: countOf(own, 'saved'),
						printed: countOf(own, 'printed'),
						seconds: [...pages.values()].reduce((a, b) => a + b, 0),
						firstAt: own[0]!.at,
						lastAt: own.at(-1)!.at,
						pages
					});
				}
				const sourceName = (e: { source: { kind: string; page: string | null }; placement: string | null; key: string | null }) =>
					`${e.source.kind} ${e.source.page} ${e.placement} ${e.key}`;
				const sources = grouped<Summable>(
					sourceName,
					all.filter((e) => ['opened', 'saved', 'shown', 'looked'].includes(e.kind))
				);
				expect(new Map(sum.sources.map((s) => [sourceName({ ...s, source: s }), [s.shown, s.looks, s.openings, s.saves]]))).toEqual(
					new Map([...sources].map(([name, own]) => [name, (['shown', 'looked', 'opened', 'saved'] as const).map((kind) => countOf(own, kind))]))
				);
				expect(sum.sources).toHaveLength(sources.size);
				for (let hour = 0; hour < 24; hour++)
					expect(sum.hours[hour]).toBe(all.filter((e) => (e.kind === 'opened' || e.kind === 'saved') && utcHour(e.at) === hour).length);
				devices.forEach((device, i) =>
					expect(sum.devices[i]).toBe(all.filter((e) => (e.kind === 'opened' || e.kind === 'saved') && e.device === device).length)
				);
			}),
			{ numRuns: 300 }
		);
	});
	it('knows a reader’s name and key as soon as one entry has them', () => {
		const { readers } = sumDay([entry(0), entry(60_000, { person: 'ada', key: 'k' }), entry(120_000, { person: 'bob' })], Infinity, utcHour);
		expect(readers).toMatchObject([{ person: 'ada', key: 'k', openings: 3, firstAt: 0, lastAt: 120_000 }]);
	});
	it('staff count by themselves: not what robots and pre-loads did under their sign-in, nor what is of the next day', () => {
		const by = (at: number, more: Partial<Summable>) => entry(at, { staff: true, ...more });
		const sum = sumDay(
			[by(0, {}), by(1000, {}), by(2000, { kind: 'saved' }), by(3000, { robot: true }), by(4000, { preload: true }), by(5000, {})],
			5000,
			utcHour
		);
		expect([sum.staffOpenings, sum.staffSaves, sum.openings, sum.saves, sum.readers]).toEqual([2, 1, 0, 0, []]);
	});
	it('whoever looks at a document’s page and opens it in the same hour is one unique investigation, and one unique request', () => {
		const day = (...kinds: EntryKind[]) =>
			sumDay(
				kinds.map((kind, i) => entry(clock('10:05:00') + i * 60_000, { kind })),
				Infinity,
				utcHour
			);
		const uniques = ({ uniqueInvestigations, uniqueRequests }: ReturnType<typeof day>) => [uniqueInvestigations, uniqueRequests];
		expect(uniques(day('looked', 'opened', 'saved'))).toEqual([1, 1]);
		expect(uniques(day('looked'))).toEqual([1, 0]);
		expect(uniques(day('turned-away', 'shown', 'printed'))).toEqual([0, 0]);
	});
	it('who was turned away is kept apart by reason, page and key; knocking twice within 30 s is once', () => {
		const from = (page: string | null) => ({ kind: page ? ('page' as const) : ('direct' as const), page, outside: null });
		const away = (at: number, more: Partial<Summable>) => entry(at * 1000, { kind: 'turned-away', reason: 'sign-in', ...more });
		const { refused, refusals } = sumDay(
			[
				away(0, { source: from('p') }),
				away(10, { source: from('p') }),
				away(100, { source: from('p') }),
				away(200, { source: from(null) }),
				away(300, { reason: 'not-admitted', person: 'ada', reader: 'p:ada', source: from('p') }),
				away(400, { reason: 'key-withdrawn', key: 'k', source: from(null) })
			],
			Infinity,
			utcHour
		);
		expect(refusals).toBe(5);
		expect(refused).toEqual([
			{ reason: 'sign-in', page: 'p', reader: 'r', person: null, key: null, times: 2, lastAt: 100_000 },
			{ reason: 'sign-in', page: null, reader: 'r', person: null, key: null, times: 1, lastAt: 200_000 },
			{ reason: 'not-admitted', page: 'p', reader: 'p:ada', person: 'ada', key: null, times: 1, lastAt: 300_000 },
			{ reason: 'key-withdrawn', page: null, reader: 'r', person: null, key: 'k', times: 1, lastAt: 400_000 }
		]);
	});
	it('10:05 and 10:55 are one unique; 10:55 and 11:05 two', () => {
		const uniques = (...times: string[]) =>
			sumDay(
				times.map((t) => entry(clock(t))),
				Infinity,
				utcHour
			).uniqueRequests;
		expect([uniques('10:05:00', '10:55:00'), uniques('10:55:00', '11:05:00')]).toEqual([1, 2]);
	});
	it('a double click over midnight counts on the later day alone', () => {
		const midnight = clock('00:00:00') + 86_400_000;
		const both = [entry(midnight - 10_000), entry(midnight + 10_000)];
		expect(sumDay(both, midnight, utcHour).openings).toBe(0);
		expect(sumDay(both.slice(1), midnight + 86_400_000, utcHour).openings).toBe(1);
	});
});

describe('read through', () => {
	it('at least 90 % of the pages with at least 2 s each', () => {
		expect([isThrough(29, 32), isThrough(28, 32), isThrough(9, 10), isThrough(1, 1), isThrough(0, 0)]).toEqual([true, false, true, true, false]);
	});
	it('as much as the site sets', () => expect(isThrough(5, 10, 0.5)).toBe(true));
});

it('devices by what browsers call themselves (common practice, no source)', () => {
	const named = {
		'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36': 'computer',
		'Mozilla/5.0 (Windows NT 10.0; Win64; x64; rv:140.0) Gecko/20100101 Firefox/140.0': 'computer',
		'Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) AppleWebKit/605.1.15 Version/18.0 Mobile/15E148 Safari/604.1': 'phone',
		'Mozilla/5.0 (Linux; Android 15; Pixel 9) AppleWebKit/537.36 Chrome/140.0.0.0 Mobile Safari/537.36': 'phone',
		'Mozilla/5.0 (Linux; Android 15; SM-X910) AppleWebKit/537.36 Chrome/140.0.0.0 Safari/537.36': 'tablet',
		'Mozilla/5.0 (iPad; CPU OS 16_0 like Mac OS X) AppleWebKit/605.1.15 Version/16.0 Mobile/15E148 Safari/604.1': 'tablet',
		'curl/8.0': 'other'
	};
	for (const [agent, device] of Object.entries(named)) expect(deviceOf(agent), agent).toBe(device);
});

describe('the time of a report', () => {
	const today = '2026-11-25';
	it('is the last 30 days where nothing else is asked, beside the 30 before', () => {
		expect(periodOf({}, today)).toEqual({
			first: '2026-10-27',
			last: today,
			length: 30,
			by: 'day',
			preset: 30,
			before: { first: '2026-09-27', last: '2026-10-26' }
		});
	});
	it('is what is asked, never past today, and what means nothing is let be', () => {
		expect(periodOf({ from: '2026-02-28', until: '2026-03-01' }, today)).toMatchObject({
			length: 2,
			preset: null,
			before: { first: '2026-02-26', last: '2026-02-27' }
		});
		expect(periodOf({ from: '2026-11-20', until: '2027-05-01' }, today)).toMatchObject({ first: '2026-11-20', last: today });
		expect(periodOf({ from: '2026-13-40', days: '12' }, today)).toMatchObject({ length: 30 });
		expect(periodOf({ from: '2026-11-20', until: '2026-11-10' }, today).length).toBe(30);
		expect([periodOf({ days: '90' }, today).by, periodOf({ days: '365' }, today).by, periodOf({ days: '365', by: 'week' }, today).by]).toEqual([
			'week',
			'month',
			'week'
		]);
	});
	it('the time before is as long and ends where it begins', () => {
		fc.assert(
			fc.property(fc.integer({ min: 0, max: 800 }), fc.integer({ min: 0, max: 800 }), (back, length) => {
				const last = dayAfter(today, -back);
				const period = periodOf({ from: dayAfter(last, -length), until: last }, today);
				expect(daysIn(period)).toBe(daysIn(period.before));
				expect(dayAfter(period.before.last, 1)).toBe(period.first);
			})
		);
	});
	it('is days, dekads and whole months, each day in one of them', () => {
		expect(piecesOf({ first: '2026-10-19', last: '2026-12-12' })).toEqual({
			spans: ['day', 'day', 'dekad', 'month', 'dekad', 'day', 'day'],
			days: ['2026-10-19', '2026-10-20', '2026-10-21', '2026-11-01', '2026-12-01', '2026-12-11', '2026-12-12']
		});
		expect(piecesOf({ first: '2028-02-01', last: '2028-02-29' })).toEqual({ spans: ['month'], days: ['2028-02-01'] });
		fc.assert(
			fc.property(fc.integer({ min: 0, max: 1500 }), fc.integer({ min: 0, max: 900 }), (start, length) => {
				const days = { first: dayAfter('2025-12-15', start), last: dayAfter('2025-12-15', start + length) };
				const { spans, days: firsts } = piecesOf(days);
				const all = firsts.flatMap((day, i) => {
					const { first, last } = sumSpanOf(day, spans[i]!);
					expect(first).toBe(day);
					return Array.from({ length: daysIn({ first, last }) }, (_, n) => dayAfter(first, n));
				});
				expect(all).toEqual(Array.from({ length: length + 1 }, (_, i) => dayAfter(days.first, i)));
				// at each end at most two dekads and ten days
				expect(spans.filter((s) => s === 'day').length).toBeLessThanOrEqual(20);
				expect(spans.filter((s) => s === 'dekad').length).toBeLessThanOrEqual(4);
			})
		);
	});
	it('dekads begin on the 1st, 11th and 21st, and the last goes to the end of the month (as the World Meteorological Organization has them, from memory)', () => {
		const dekad = (day: string) => (({ first, last }) => [first, last])(sumSpanOf(day, 'dekad'));
		expect(dekad('2026-02-10')).toEqual(['2026-02-01', '2026-02-10']);
		expect(dekad('2026-02-11')).toEqual(['2026-02-11', '2026-02-20']);
		expect([dekad('2026-02-21'), dekad('2028-02-28'), dekad('2026-12-31')]).toEqual([
			['2026-02-21', '2026-02-28'],
			['2028-02-21', '2028-02-29'],
			['2026-12-21', '2026-12-31']
		]);
		expect(sumSpanOf('2026-12-31', 'month')).toEqual({ first: '2026-12-01', last: '2026-12-31' });
		expect(sumSpanOf('2026-12-31', 'day')).toEqual({ first: '2026-12-31', last: '2026-12-31' });
	});
	it('is added up from its days, those outside left out', () => {
		const on = (day: string, n: number, hour: number, staff = 0): DayFigures => ({
			...{ day, openings: n, saves: 1, printed: 0, refusals: 2, seconds: 1.5 * n, staffOpenings: staff, staffSaves: 0 },
			hours: Array.from({ length: 24 }, (_, h) => (h === hour ? n + 1 : 0)),
			devices: [n, 0, 1, 0]
		});
		// 2026-11-22 is a Sunday
		const days = [on('2026-11-20', 9, 1, 9), on('2026-11-21', 2, 10, 1), on('2026-11-22', 4, 10), on('2026-11-29', 1, 23, 2), on('2026-11-30', 9, 1, 9)];
		const { figures, staff, week, devices: byDevice } = addDays(days, { first: '2026-11-21', last: '2026-11-29' });
		expect(figures).toEqual({ openings: 7, saves: 3, printed: 0, refusals: 6, seconds: 10.5 });
		expect(staff).toEqual({ openings: 3, saves: 0 });
		expect(week.map((hours) => hours.flatMap((n, hour) => (n ? [[hour, n]] : [])))).toEqual([
			[],
			[],
			[],
			[],
			[],
			[[10, 3]],
			[
				[10, 5],
				[23, 2]
			]
		]);
		expect(byDevice).toEqual([
			{ device: 'computer', n: 7 },
			{ device: 'phone', n: 3 }
		]);
		expect(addDays([], { first: '2026-11-21', last: '2026-11-29' }).figures.openings).toBe(0);
	});
	it('weeks begin on Monday, months on the first (ISO 8601)', () => {
		expect([stepOf('2026-11-25', 'week'), stepOf('2026-11-23', 'week'), stepOf('2026-11-22', 'week'), stepOf('2026-11-25', 'month')]).toEqual([
			'2026-11-23',
			'2026-11-23',
			'2026-11-16',
			'2026-11-01'
		]);
	});
	it('knows four lengths by their number, and no others', () => {
		expect(['7', '30', '90', '365', '31', '366', '1', 'all', null].map((days) => periodOf({ days }, today).length)).toEqual([
			7, 30, 90, 365, 30, 30, 30, 30, 30
		]);
		expect([periodOf({ days: '90' }, today).preset, periodOf({ days: '90', until: '2026-11-01' }, today).preset]).toEqual([90, null]);
	});
	it('stands in bars by day up to 60 days, by week up to 180, by month beyond, unless it is asked otherwise', () => {
		const by = (length: number, asked?: string) => periodOf({ from: dayAfter(today, 1 - length), by: asked }, today).by;
		expect([1, 60, 61, 180, 181, 400].map((n) => by(n))).toEqual(['day', 'day', 'week', 'week', 'month', 'month']);
		expect([by(400, 'day'), by(1, 'month'), by(61, 'year')]).toEqual(['day', 'month', 'week']);
	});
	it('begins no earlier than a hundred years before its end, and on its last day at the latest', () => {
		expect(periodOf({ from: '1000-01-01' }, today)).toMatchObject({ length: 36_525, first: dayAfter(today, -36_524), last: today });
		expect(periodOf({ from: dayAfter(today, -36_524) }, today).length).toBe(36_525);
		expect(periodOf({ from: today }, today)).toMatchObject({ first: today, last: today, length: 1 });
		expect(periodOf({ from: dayAfter(today, 1) }, today).length).toBe(30);
	});
	it('a bar has the days as far before beside it, openings and saves together', () => {
		const rows = [
			{ day: '2026-11-02', openings: 1, saves: 0 },
			{ day: '2026-11-09', openings: 7, saves: 2 },
			{ day: '2026-11-16', openings: 30, saves: 4 },
			{ day: '2026-11-24', openings: 5, saves: 0 }
		];
		const bars = series(rows, periodOf({ from: '2026-11-11', until: '2026-11-24', by: 'week' }, today));
		expect(bars).toEqual([
			{ day: '2026-11-11', openings: 0, saves: 0, before: 0 },
			{ day: '2026-11-16', openings: 30, saves: 4, before: 1 },
			{ day: '2026-11-23', openings: 5, saves: 0, before: 9 }
		]);
	});
	it('every day stands in its series, also across a change of clocks, and sums are kept by week and month', () => {
		const rows = [
			{ day: '2026-10-25', openings: 3, saves: 1 },
			{ day: '2026-10-23', openings: 2, saves: 0 }
		];
		const days = series(rows, periodOf({ from: '2026-10-24', until: '2026-10-26' }, today));
		expect(days.map((d) => [d.day, d.openings, d.saves, d.before])).toEqual([
			['2026-10-24', 0, 0, 0],
			['2026-10-25', 3, 1, 0],
			['2026-10-26', 0, 0, 2]
		]);
		for (const by of ['week', 'month']) {
			const bars = series(rows, periodOf({ from: '2026-10-01', until: '2026-11-20', by }, today));
			expect(bars.reduce((n, b) => n + b.openings, 0)).toBe(5);
		}
	});
});

describe('who is reminded', () => {
	// model.md: four states of the roll call; a receipt is asked for or not
	const awaited = (of: { asks: boolean; unfinished?: boolean }) => standings.filter((standing) => isAwaited(standing, of));
	it('is who has not opened it, and where a receipt is asked for who has given none', () => {
		expect(awaited({ asks: false })).toEqual(['not-yet']);
		expect(awaited({ asks: false, unfinished: true })).toEqual(['opened', 'not-yet']);
		expect(awaited({ asks: true })).toEqual(['through', 'opened', 'not-yet']);
		expect(awaited({ asks: true, unfinished: true })).toEqual(['through', 'opened', 'not-yet']);
	});
});

describe('the answer', () => {
	const say = (pieces: readonly { text: string }[]) => pieces.map((p) => p.text).join('');
	const when = { words: 'in the last 30 days', length: 30 };
	const figures = (some: Partial<Figures>): Figures => ({ ...noFigures, ...some });
	it('is a sentence made from the figures', () => {
		expect(
			say(
				documentAnswer(
					figures({ openings: 25, saves: 5, printed: 1, refusals: 26, readers: 12, seconds: 15_600 }),
					figures({ seconds: 11_700 }),
					{ admitted: 14, opened: 11, through: 7, receipts: null },
					when,
					'Volunteering'
				)
			)
		).toBe(
			'11 of the 14 who may open it have, and 7 read it through. 3 have not opened it. 12 readers in the last 30 days: 25 openings, 5 copies saved and printed 1 time. They gave it 4 h 20 min, 33 % more than in the 30 days before. Turned away 26 times, mostly from Volunteering.'
		);
		expect(say(documentAnswer(figures({ openings: 1, readers: 1 }), noFigures, null, when))).toBe(
			'1 reader in the last 30 days: 1 opening and 0 copies saved. '
		);
		expect(say(documentAnswer(noFigures, noFigures, null, when))).toBe('Nobody opened it in the last 30 days. ');
		expect(say(documentAnswer(noFigures, noFigures, { admitted: 0, opened: 0, through: 0, receipts: null }, when))).toContain(
			'Nobody but staff may open it today.'
		);
		expect(say(siteAnswer(noFigures, noFigures, 0, when))).toBe('Nobody opened a document in the last 30 days.');
		expect(say(siteAnswer(figures({ openings: 20, saves: 2, readers: 9, refusals: 1 }), figures({ openings: 11 }), 4, when))).toBe(
			'9 readers opened 4 documents 20 times in the last 30 days and saved 2 copies, twice as much as in the 30 days before. 1 time somebody was turned away.'
		);
		expect(say(memberAnswer('Ada', figures({ openings: 2, seconds: 70 }), 1, when))).toBe(
			'Ada opened 1 document 2 times in the last 30 days, saved 0 copies and read for 1 min. '
		);
	});
	it('leaves out what there is nothing to say of', () => {
		const roll = (opened: number, admitted: number) => say(documentAnswer(noFigures, noFigures, { admitted, opened, through: 0, receipts: null }, when));
		expect(roll(0, 3)).toBe('0 of the 3 who may open it have. Nobody opened it in the last 30 days. ');
		expect(roll(1, 3)).toBe('1 of the 3 who may open it has, and 0 read it through. 2 have not opened it. Nobody opened it in the last 30 days. ');
		expect(roll(2, 3)).toContain('1 has not opened it. ');
		const asks = (receipts: number) => say(documentAnswer(noFigures, noFigures, { admitted: 3, opened: 3, through: 2, receipts }, when));
		expect(asks(1)).toContain('2 read it through. 1 of the 3 has given a receipt. ');
		expect(asks(0)).toContain('0 of the 3 have given a receipt. ');
		expect(roll(3, 3)).toBe('3 of the 3 who may open it have, and 0 read it through. Nobody opened it in the last 30 days. ');
		const read = (seconds: number, before = 0) =>
			say(documentAnswer(figures({ openings: 2, readers: 2, seconds }), figures({ seconds: before }), null, { ...when, length: 1 }));
		expect(read(0.9)).toBe('2 readers in the last 30 days: 2 openings and 0 copies saved. ');
		expect(read(1)).toContain('They gave it 1 s. ');
		expect(read(60, 60)).toContain('They gave it 1 min, as much as in the 1 day before. ');
		expect(say(documentAnswer(figures({ refusals: 1 }), noFigures, null, when))).toBe('Nobody opened it in the last 30 days. Turned away 1 time.');
		// who only saved did something too
		expect(say(siteAnswer(figures({ saves: 1, readers: 1 }), noFigures, 1, when))).toBe(
			'1 reader opened 1 document 0 times in the last 30 days and saved 1 copy. '
		);
		expect(say(siteAnswer(figures({ openings: 3, saves: 1, readers: 1, seconds: 1 }), figures({ openings: 1, saves: 1 }), 1, when))).toBe(
			'1 reader opened 1 document 3 times in the last 30 days and saved 1 copy, twice as much as in the 30 days before. They read for 1 s. '
		);
		expect(say(memberAnswer('Ada', figures({ refusals: 2 }), 0, when))).toBe('Ada opened nothing in the last 30 days. Turned away 2 times.');
		expect(say(memberAnswer('Ada', figures({}), 0, when))).toBe('Ada opened nothing in the last 30 days. ');
		expect(say(memberAnswer('Ada', figures({ saves: 1, seconds: 0.5, refusals: 1 }), 1, when))).toBe(
			'Ada opened 1 document 0 times in the last 30 days, saved 1 copy. Turned away 1 time.'
		);
	});
	it('changes are said by the nearest that is true', () => {
		expect([294, 295, 194, 195, 102, 101, 99, 98, 1].map((now) => changeWords(now, 100))).toEqual([
			'twice as much as',
			'3 times as much as',
			'94 % more than',
			'twice as much as',
			'2 % more than',
			'as much as',
			'as much as',
			'2 % less than',
			'99 % less than'
		]);
		expect([changeWords(0, 100), changeWords(0, 0)]).toEqual(['100 % less than', null]);
		expect([59.4, 59.5, 3_569, 3_570, 3_630, 7_200].map(durationWords)).toEqual(['59 s', '1 min', '59 min', '1 h', '1 h 1 min', '2 h']);
	});
	it('says times and changes as people do', () => {
		expect([0, 40, 59.6, 3_599, 3_600, 15_600].map(durationWords)).toEqual(['0 s', '40 s', '1 min', '1 h', '1 h', '4 h 20 min']);
		expect([changeWords(5, 0), changeWords(100, 100), changeWords(112, 100), changeWords(80, 100), changeWords(200, 100), changeWords(410, 100)]).toEqual([
			null,
			'as much as',
			'12 % more than',
			'20 % less than',
			'twice as much as',
			'4 times as much as'
		]);
	});
});

describe('the item report', () => {
	it('has a line for each kind of figure with its months and their total', () => {
		const report = itemReport(
			[
				{
					slug: 'guide',
					title: 'Guide',
					month: '2026-10',
					investigations: 9,
					requests: 5,
					uniqueInvestigations: 7,
					uniqueRequests: 4,
					refusals: 0,
					access: 'Free_To_Read',
					year: '2026'
				},
				{
					slug: 'guide',
					title: 'Guide',
					month: '2026-12',
					investigations: 2,
					requests: 1,
					uniqueInvestigations: 1,
					uniqueRequests: 1,
					refusals: 3,
					access: 'Controlled',
					year: '2026'
				}
			],
			{ site: 'Society', origin: 'https://example.org', first: '2026-10-15', last: '2027-01-02', created: '2027-01-02T00:00:00Z' }
		);
		expect(report.months).toEqual(['2026-10', '2026-11', '2026-12', '2027-01']);
		expect(report.items.map((i) => [i.Access_Type, i.Metric_Type, i.Reporting_Period_Total, ...Object.values(i.months)])).toEqual([
			['Free_To_Read', 'Total_Item_Investigations', 9, 9, 0, 0, 0],
			['Free_To_Read', 'Total_Item_Requests', 5, 5, 0, 0, 0],
			['Free_To_Read', 'Unique_Item_Investigations', 7, 7, 0, 0, 0],
			['Free_To_Read', 'Unique_Item_Requests', 4, 4, 0, 0, 0],
			['Controlled', 'Total_Item_Investigations', 2, 0, 0, 2, 0],
			['Controlled', 'Total_Item_Requests', 1, 0, 0, 1, 0],
			['Controlled', 'Unique_Item_Investigations', 1, 0, 0, 1, 0],
			['Controlled', 'Unique_Item_Requests', 1, 0, 0, 1, 0],
			['Controlled', 'No_License', 3, 0, 0, 3, 0]
		]);
		const lines = itemTable(report).split('\r\n');
		// the layout of release 5.1, from memory: these rows, an empty one, these columns
		expect(lines.slice(0, 13).map((l) => l.split('\t')[0])).toEqual(
			['Report_Name', 'Report_ID', 'Release', 'Institution_Name', 'Institution_ID', 'Metric_Types', 'Report_Filters', 'Report_Attributes', 'Exceptions', 'Reporting_Period', 'Created', 'Created_By', 'Registry_Record'] // prettier-ignore
		);
		expect(lines).toContain('Reporting_Period\tBegin_Date=2026-10-15; End_Date=2027-01-02');
		expect(lines[13]).toBe('');
		expect(lines[14]).toBe(
			'Item Publisher Publisher_ID Platform DOI Proprietary_ID ISBN Print_ISSN Online_ISSN URI Data_Type YOP Access_Type Metric_Type Reporting_Period_Total Oct-2026 Nov-2026 Dec-2026 Jan-2027'.replaceAll(
				' ',
				'\t'
			)
		);
		expect(lines.find((l) => l.startsWith('Guide\t'))!.split('\t')).toEqual(
			['Guide', 'Society', '', 'Society', '', 'ianua:guide', '', '', '', 'https://example.org/d/guide', 'Other', '2026', 'Free_To_Read', 'Total_Item_Investigations', '9', '9', '0', '0', '0'] // prettier-ignore
		);
		for (const line of lines.slice(15, -1)) expect(line.split('\t')).toHaveLength(19);
		// and the JSON of the same release, from memory: header and items by these names, figures by month, those that are none left out
		expect(itemJson(report)).toEqual({
			Report_Header: {
				Report_Name: 'Item Report',
				Report_ID: 'IR',
				Release: '5.1',
				Institution_Name: 'The World',
				Institution_ID: {},
				Report_Filters: {
					Metric_Type: ['Total_Item_Investigations', 'Total_Item_Requests', 'Unique_Item_Investigations', 'Unique_Item_Requests', 'No_License'],
					Begin_Date: '2026-10-15',
					End_Date: '2027-01-02'
				},
				Report_Attributes: { Attributes_To_Show: ['YOP', 'Access_Type'] },
				Exceptions: [],
				Created: '2027-01-02T00:00:00Z',
				Created_By: 'Society',
				Registry_Record: ''
			},
			Report_Items: [
				{
					Items: [
						{
							Item: 'Guide',
							Publisher: 'Society',
							Platform: 'Society',
							Item_ID: { Proprietary: 'ianua:guide', URI: 'https://example.org/d/guide' },
							Attribute_Performance: [
								{
									Data_Type: 'Other',
									YOP: '2026',
									Access_Type: 'Controlled',
									Performance: {
										Total_Item_Investigations: { '2026-12': 2 },
										Total_Item_Requests: { '2026-12': 1 },
										Unique_Item_Investigations: { '2026-12': 1 },
										Unique_Item_Requests: { '2026-12': 1 },
										No_License: { '2026-12': 3 }
									}
								},
								{
									Data_Type: 'Other',
									YOP: '2026',
									Access_Type: 'Free_To_Read',
									Performance: {
										Total_Item_Investigations: { '2026-10': 9 },
										Total_Item_Requests: { '2026-10': 5 },
										Unique_Item_Investigations: { '2026-10': 7 },
										Unique_Item_Requests: { '2026-10': 4 }
									}
								}
							]
						}
					]
				}
			]
		});
	});
	it('goes by whole months', () => {
		expect(wholeMonths({ first: '2026-09-15', last: '2026-10-02' })).toEqual({ first: '2026-09-01', last: '2026-10-31' });
		expect(wholeMonths({ first: '2028-02-29', last: '2028-02-29' })).toEqual({ first: '2028-02-01', last: '2028-02-29' });
		expect([monthHeading('2026-09'), monthHeading('2027-12')]).toEqual(['Sep-2026', 'Dec-2027']);
	});
	it('no title breaks the table or is taken for a formula', () => {
		const report = itemReport(
			[
				{
					slug: 's',
					title: '=A1\tB\nC',
					month: '2026-10',
					investigations: 1,
					requests: 1,
					uniqueInvestigations: 1,
					uniqueRequests: 1,
					refusals: 0,
					access: 'Free_To_Read',
					year: '2026'
				}
			],
			{
				...{ site: 'S', origin: 'https://example.org', first: '2026-10-01', last: '2026-10-31', created: '' }
			}
		);
		expect(itemTable(report)).toContain("'=A1 B C\tS\t");
	});
	it('months go over the end of a year', () => expect(monthsOf('2026-12-31', '2027-02-01')).toEqual(['2026-12', '2027-01', '2027-02']));
});

describe('what is kept of readers', () => {
	it('addresses are cut to 24 bits of IPv4 and 48 of IPv6 (RFC 5737 and RFC 3849 addresses)', () => {
		expect(
			['203.0.113.77', '::ffff:198.51.100.9', '2001:db8:12:34::1', '2001:0db8::1', '::1', 'fe80::1%eth0', '2001:db8:1:2:3:4:5:6', 'nonsense', '1:2:3'].map(
				cutAddress
			)
		).toEqual(['203.0.113.0', '198.51.100.0', '2001:db8:12::', '2001:db8:0::', '0:0:0::', 'fe80:0:0::', '2001:db8:1::', 'unknown', 'unknown']);
	});
	it('of who does not want to be followed nothing is kept but counts', () => {
		expect([
			keptOf('cookie', { gpc: '1', dnt: null }),
			keptOf('cookie', { gpc: null, dnt: '1' }),
			keptOf('cookie', { gpc: null, dnt: '0' }),
			keptOf('nothing', { gpc: '1', dnt: '1' })
		]).toEqual(['nothing', 'nothing', 'cookie', 'nothing']);
	});
	it('a site that sets nothing keeps a mark for a day, for ever, and 90 % is through', () =>
		expect(readershipOf(null)).toEqual({ nameless: 'day', months: null, through: 0.9 }));
});

describe('reports by mail', () => {
	const next = (after: string, every: 'week' | 'month', zone = 'Europe/London') => new Date(nextMailing(Date.parse(after), every, zone)).toISOString();
	it('come on Monday, or on the first, at seven by the clock on the wall', () => {
		expect(next('2026-11-25T12:00Z', 'week')).toBe('2026-11-30T07:00:00.000Z');
		expect(next('2026-11-30T06:59Z', 'week')).toBe('2026-11-30T07:00:00.000Z');
		expect(next('2026-11-30T07:00Z', 'week')).toBe('2026-12-07T07:00:00.000Z');
		expect(next('2026-11-25T12:00Z', 'month')).toBe('2026-12-01T07:00:00.000Z');
		// summer time: seven is six in UTC; and a zone that is ahead
		expect(next('2027-03-28T12:00Z', 'week')).toBe('2027-03-29T06:00:00.000Z');
		expect(next('2026-12-31T23:30Z', 'month', 'Asia/Tokyo')).toBe('2027-02-01T07:00:00.000Z'.replace('02-01T07', '01-31T22'));
	});
	it('tell of the week to yesterday, or of the month before, whole, also where they come late', () => {
		const days = (at: string, every: 'week' | 'month', zone = 'Europe/London') => Object.values(mailedDays(Date.parse(at), every, zone));
		expect(days('2026-12-07T07:00Z', 'week')).toEqual(['2026-11-30', '2026-12-06']);
		expect(days('2027-01-01T07:00Z', 'month')).toEqual(['2026-12-01', '2026-12-31']);
		expect(days('2027-01-02T08:00Z', 'month')).toEqual(['2026-12-01', '2026-12-31']);
		expect(days('2028-03-01T07:00Z', 'month')).toEqual(['2028-02-01', '2028-02-29']);
		expect(days('2027-01-31T22:00Z', 'month', 'Asia/Tokyo')).toEqual(['2027-01-01', '2027-01-31']);
	});
	it('come again and again, always later', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 0, max: 3650 }),
				fc.constantFrom(...(['week', 'month'] as const)),
				fc.constantFrom('Europe/London', 'America/New_York', 'Pacific/Chatham'),
				(day, every, zone) => {
					const after = Date.parse('2020-01-01T00:00Z') + day * 86_400_000;
					const at = nextMailing(after, every, zone);
					expect(at).toBeGreaterThan(after);
					expect(at - after).toBeLessThanOrEqual((every === 'week' ? 7 : 31) * 86_400_000 + 3_600_000);
					// one mail goes on where the one before ended: no day is in none of them, and none in two
					expect(mailedDays(nextMailing(at, every, zone), every, zone).first).toBe(dayAfter(mailedDays(at, every, zone).last, 1));
				}
			)
		);
	});
});

describe('webhooks (Standard Webhooks 1.0, from memory)', () => {
	it('sign the id, the time and the body joined by full stops', () =>
		expect(signedContent('msg_1', 1_614_265_330, '{"test": 2432232314}')).toBe('msg_1.1614265330.{"test": 2432232314}'));
	it('are tried again ever later, and given up in the end', () => {
		expect([1, 2, 9, 10].map(waitAfter)).toEqual([5, 300, 86_400, null]);
		// 5 s, 5 min, 30 min, 2 h, 5 h, 10 h, 14 h, 20 h, 24 h: a little over three days
		expect([1, 2, 3, 4, 5, 6, 7, 8, 9].map((n) => waitAfter(n)! / 60)).toEqual([5 / 60, 5, 30, 120, 300, 600, 840, 1_200, 1_440]);
	});
});
