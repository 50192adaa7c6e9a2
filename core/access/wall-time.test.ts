import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { startOfDay } from './hours';
import { boundOf, dayHabitOf, instantAt, readMoment, readTime, shownBound, wallTimeOf } from './wall-time';

const iso = (at: number) => new Date(at).toISOString();

describe('wall time', () => {
	it('is what clocks show, in winter and in summer', () => {
		expect(wallTimeOf(Date.parse('2026-12-07T09:00Z'), 'Europe/London')).toEqual({ day: '2026-12-07', time: '09:00' });
		expect(wallTimeOf(Date.parse('2026-07-07T23:30Z'), 'Europe/London')).toEqual({ day: '2026-07-08', time: '00:30' });
		expect(iso(instantAt({ day: '2026-07-07', time: '09:00' }, 'America/New_York'))).toBe('2026-07-07T13:00:00.000Z');
		expect(iso(instantAt({ day: '2026-07-07', time: '09:00' }, 'Asia/Kathmandu'))).toBe('2026-07-07T03:15:00.000Z');
	});
	// the tz database: in London clocks go forward at 01:00 on 28 March 2027 and back at 02:00 on 25 October 2026; on Lord Howe Island by half an hour
	it('that is left out is as much later as clocks jump; that comes twice is the first', () => {
		expect(iso(instantAt({ day: '2027-03-28', time: '01:30' }, 'Europe/London'))).toBe('2027-03-28T01:30:00.000Z');
		expect(iso(instantAt({ day: '2026-10-25', time: '01:30' }, 'Europe/London'))).toBe('2026-10-25T00:30:00.000Z');
		expect(iso(instantAt({ day: '2026-10-25', time: '02:00' }, 'Europe/London'))).toBe('2026-10-25T02:00:00.000Z');
		expect(iso(instantAt({ day: '2027-04-04', time: '01:45' }, 'Australia/Lord_Howe'))).toBe('2027-04-03T14:45:00.000Z');
	});
	it('comes back from its instant, wherever clocks show it at all', () => {
		const zones = ['Europe/London', 'America/New_York', 'Asia/Kathmandu', 'Australia/Lord_Howe', 'Africa/Cairo', 'Pacific/Apia'];
		fc.assert(
			fc.property(fc.integer({ min: 0, max: 2_000_000 }), fc.constantFrom(...zones), (halfHours, zone) => {
				const at = Date.parse('2010-01-01T00:00Z') + (halfHours % 350_000) * 1_800_000;
				const shown = wallTimeOf(at, zone);
				const back = instantAt(shown, zone);
				expect(wallTimeOf(back, zone)).toEqual(shown);
				expect(back).toBeLessThanOrEqual(at);
			})
		);
	});
	it('is stored as a whole day or as an instant, and shown as it was given', () => {
		expect(boundOf('2026-12-07', null, 'Europe/London')).toBe('2026-12-07');
		expect(boundOf('2026-06-07', '09:00', 'Europe/London')).toBe('2026-06-07T08:00:00.000Z');
		expect(shownBound('2026-12-07', 'Europe/London')).toEqual({ day: '2026-12-07', time: null });
		expect(shownBound('2026-06-07T08:00:00.000Z', 'Europe/London')).toEqual({ day: '2026-06-07', time: '09:00' });
		expect(instantAt({ day: '2026-06-07', time: '00:00' }, 'Europe/London')).toBe(startOfDay('2026-06-07', 'Europe/London'));
	});
});

describe('a time as it is typed', () => {
	it.each([
		['9', '09:00'],
		['9:05', '09:05'],
		['18.30', '18:30'],
		['0930', '09:30'],
		['18h', '18:00'],
		['18h30', '18:30'],
		['9 pm', '21:00'],
		['12am', '00:00'],
		['12 p.m.', '12:00'],
		['9:30 PM', '21:30'],
		['0:00', '00:00'],
		['23:59', '23:59']
	])('%s is %s', (text, time) => expect(readTime(text)).toBe(time));
	it.each(['', '24', '9:60', '13 pm', '0 am', 'noon', '9:5', '-1', '9 9'])('“%s” is none', (text) => expect(readTime(text)).toBeNull());
});

describe('a moment as it is typed', () => {
	const today = '2026-11-28';
	const [british, american, german, french] = ['en-GB', 'en-US', 'de', 'fr'].map(dayHabitOf);
	it.each([
		['7/12 9:00', '2026-12-07', '09:00'],
		['7.12.', '2026-12-07', null],
		['28/12/2026, 18:00', '2026-12-28', '18:00'],
		['28-12-26', '2026-12-28', null],
		['2026-12-07T09:00', '2026-12-07', '09:00'],
		['2027-1-5', '2027-01-05', null],
		['7 dec', '2026-12-07', null],
		['Mon 7 Dec 2026', '2026-12-07', null],
		['Monday, 7 December 9am', '2026-12-07', '09:00'],
		['7 December at 18', '2026-12-07', '18:00'],
		['December 7, 2026 18:00', '2026-12-07', '18:00'],
		['31 Oct 27', '2027-10-31', null],
		['Oct 31, ’27 18:30', '2027-10-31', '18:30'],
		['7 December 18', '2026-12-07', '18:00'],
		// the next such day
		['28/11', '2026-11-28', null],
		['27/11', '2027-11-27', null],
		['29 february', '2028-02-29', null]
	])('%s', (text, day, time) => expect(readMoment(text, today, british!)).toEqual({ day, time }));
	// the order of CLDR, as Intl has it
	it('goes by the order of the language, and by its months', () => {
		expect(readMoment('12/7/2026', today, american!)).toEqual({ day: '2026-12-07', time: null });
		expect(readMoment('12/7/2026', today, british!)).toEqual({ day: '2026-07-12', time: null });
		expect(readMoment('7. Dezember um 9 Uhr', today, german!)).toEqual({ day: '2026-12-07', time: '09:00' });
		expect(readMoment('3. März 2027', today, german!)).toEqual({ day: '2027-03-03', time: null });
		expect(readMoment('1 août 18h30', today, french!)).toEqual({ day: '2027-08-01', time: '18:30' });
		expect(readMoment('7 March', today, german!)).toEqual({ day: '2027-03-07', time: null });
	});
	it.each(['', 'soon', '31/2', '32/1/2027', '7/13', '7/12 25:00', '7/12 later', '7', '12:30', '29/2/2027', '0/1', '2026-02-30'])('“%s” is none', (text) =>
		expect(readMoment(text, today, british!)).toBeNull()
	);
	it('is read back from every way in which Intl writes a day', () => {
		for (const language of ['en-GB', 'en-US', 'de', 'fr', 'es', 'pl']) {
			const habit = dayHabitOf(language);
			for (let n = 0; n < 366; n += 5) {
				const date = new Date(Date.UTC(2028, 0, 1 + n, 12));
				const day = date.toISOString().slice(0, 10);
				for (const dateStyle of ['short', 'medium', 'long'] as const) {
					const text = new Intl.DateTimeFormat(language, { dateStyle, timeZone: 'UTC' }).format(date);
					expect([language, text, readMoment(text, today, habit)]).toEqual([language, text, { day, time: null }]);
				}
			}
		}
	});
});
