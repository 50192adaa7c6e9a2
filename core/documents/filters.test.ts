import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { filterNames, filtersOf, orderNames, orderOf, orderText, toggled, usualOrder, withinSpans } from './filters';
import { coverMark } from './cover';
import { restorableUntil, setAsideDays } from './aside';
import { languages, mainLanguage, tagOf } from './language';

describe('filters in an address', () => {
	it('several filters, several values; what means nothing is left out', () => {
		expect(filtersOf(new URLSearchParams('door=open&door=ajar&door=wide&folder=Notices+%26+news&pages=1&colour=red'))).toEqual({
			door: ['open', 'ajar'],
			folder: ['Notices & news'],
			pages: ['1']
		});
		expect(filtersOf(new URLSearchParams('door=wide'))).toEqual({});
	});
	it('a value pressed alone replaces the others and goes when pressed again', () => {
		expect(toggled({}, 'door', 'open', false)).toEqual({ door: ['open'] });
		expect(toggled({ door: ['open'] }, 'door', 'shut', false)).toEqual({ door: ['shut'] });
		expect(toggled({ door: ['open'] }, 'door', 'open', false)).toEqual({});
		expect(toggled({ door: ['open', 'shut'] }, 'door', 'open', false)).toEqual({ door: ['open'] });
	});
	it('a value beside others comes and goes by itself; twice changes nothing', () => {
		fc.assert(
			fc.property(fc.constantFrom(...filterNames), fc.uniqueArray(fc.constantFrom('a', 'b', 'c')), fc.constantFrom('a', 'b', 'd'), (name, before, value) => {
				const filters = before.length ? { [name]: before } : {};
				const there = toggled(filters, name, value, true);
				expect(there[name]?.includes(value) ?? false).toBe(!(before as string[]).includes(value));
				expect(new Set(toggled(there, name, value, true)[name] ?? [])).toEqual(new Set(before));
			})
		);
	});
	it('orders are written and read back', () => {
		for (const by of orderNames) for (const down of [true, false]) expect(orderOf(orderText({ by, down }))).toEqual({ by, down });
		expect(orderOf('colour')).toBeNull();
		expect(orderOf(null)).toBeNull();
		expect(usualOrder(true).by).toBe('match');
	});
});

describe('counts by time', () => {
	it('a longer span takes in the shorter ones; what is older stands alone', () => {
		const narrow = [
			{ value: 'week', count: 2 },
			{ value: 'day', count: 1 },
			{ value: 'older', count: 7 }
		];
		expect(Object.fromEntries(withinSpans(narrow).map((c) => [c.value, c.count]))).toEqual({ day: 1, week: 3, month: 3, year: 3, older: 7 });
	});
});

describe('small facts of documents', () => {
	it('a cover’s mark changes with what it shows', () => {
		expect([coverMark(null), coverMark({ kind: 'page', page: 1 }), coverMark({ kind: 'page', page: 3 })]).toEqual(['page-1', 'page-1', 'page-3']);
		expect(coverMark({ kind: 'icon', name: 'ship', sha256: 'abcdef0123456789' })).toBe('picture-abcdef01');
	});
	it('what is set aside can be restored for thirty days', () => {
		expect(setAsideDays).toBe(30);
		expect(new Date(restorableUntil(Date.UTC(2026, 10, 24))).toISOString()).toBe('2026-12-24T00:00:00.000Z');
	});
	it('language codes of three letters become the shorter tags of BCP 47 (RFC 5646, 2.2.1)', () => {
		expect([tagOf('deu'), tagOf('eng'), tagOf('xyz')]).toEqual(['de', 'en', null]);
		expect([mainLanguage('en-GB'), mainLanguage('zh-Hant-TW'), mainLanguage(null)]).toEqual(['en', 'zh', null]);
		expect(languages).toContain('pl');
	});
});
