import { expect, it } from 'vitest';
import { dayOf, endOfDay, isDay, isInstant, spanOf, startOfDay, within } from './hours';

const iso = (t: number) => new Date(t).toISOString();

// The model's own cases
it('until 2027-03-31 in London ends at 23:00 UTC, for summer time began on the 28th', () => {
	expect(iso(endOfDay('2027-03-31', 'Europe/London'))).toBe('2027-03-31T23:00:00.000Z');
});
it('the day 2026-10-25 in London lasts 25 hours', () => {
	expect(iso(startOfDay('2026-10-25', 'Europe/London'))).toBe('2026-10-24T23:00:00.000Z');
	expect(iso(endOfDay('2026-10-25', 'Europe/London'))).toBe('2026-10-26T00:00:00.000Z');
});
// IANA time zone database (from memory): Beirut's clocks go from 00:00 to 01:00 on the last Sunday of March
it('a day whose midnight is left out begins at its first instant', () => {
	expect(iso(startOfDay('2026-03-29', 'Asia/Beirut'))).toBe('2026-03-28T22:00:00.000Z');
	expect(dayOf(startOfDay('2026-03-29', 'Asia/Beirut'), 'Asia/Beirut')).toBe('2026-03-29');
	expect(dayOf(startOfDay('2026-03-29', 'Asia/Beirut') - 1, 'Asia/Beirut')).toBe('2026-03-28');
});
it('every day of two years begins where the day before ends, in zones east and west', () => {
	for (const zone of ['Europe/London', 'America/St_Johns', 'Pacific/Apia', 'Asia/Kathmandu', 'Australia/Lord_Howe', 'Asia/Beirut']) {
		for (let t = Date.UTC(2026, 0, 1); t < Date.UTC(2028, 0, 1); t += 86_400_000) {
			const day = iso(t).slice(0, 10);
			const start = startOfDay(day, zone);
			expect(dayOf(start, zone), `${zone} ${day}`).toBe(day);
			expect(dayOf(start - 1, zone), `${zone} ${day}`).not.toBe(day);
			expect(endOfDay(day, zone)).toBe(startOfDay(iso(t + 86_400_000).slice(0, 10), zone));
		}
	}
});
it('a span is [from, until)', () => {
	const span = spanOf('2026-11-24T10:00:00Z', '2026-11-24T11:00:00Z', 'UTC');
	expect(within(span, span.from! - 1)).toBe('before');
	expect(within(span, span.from!)).toBe('in');
	expect(within(span, span.until! - 1)).toBe('in');
	expect(within(span, span.until!)).toBe('after');
});
it('knows a day of the calendar from one that is not', () => {
	expect(isDay('2028-02-29')).toBe(true);
	for (const text of ['0999-12-31', '9999-12-31', '2027-02-29', '2027-13-01', '2027-00-10', '27-01-01', '2027-1-1', 'today'])
		expect(isDay(text), text).toBe(false);
	expect(() => startOfDay('soon', 'UTC')).toThrow(RangeError);
});
it('knows an instant that can be reckoned with', () => {
	for (const text of ['2026-11-24T10:00:00Z', '2026-11-24T10:00:00.123+05:45', '1000-01-01T00:00:00Z']) expect(isInstant(text), text).toBe(true);
	// a leap second is one by RFC 3339, 5.6, and none to JavaScript
	for (const text of ['', 'soon', '2026-12-31T23:59:60Z', '9999-12-31T23:59:59Z', '+010000-01-01T00:00:00Z']) expect(isInstant(text), text).toBe(false);
});
it('a day whose midnight is left out begins with the first instant it has (tz database: São Paulo 2018, Cairo 2024, Beirut 2022)', () => {
	expect(iso(startOfDay('2018-11-04', 'America/Sao_Paulo'))).toBe('2018-11-04T03:00:00.000Z');
	expect(iso(startOfDay('2024-04-26', 'Africa/Cairo'))).toBe('2024-04-25T22:00:00.000Z');
	expect(iso(startOfDay('2022-03-27', 'Asia/Beirut'))).toBe('2022-03-26T22:00:00.000Z');
	// and one whose midnight comes twice with the first of them: Havana, 2026-11-01, clocks go back at one
	expect(iso(startOfDay('2026-11-01', 'America/Havana'))).toBe('2026-11-01T04:00:00.000Z');
});
it('every day begins where the one before ends, in zones of every kind', () => {
	for (const zone of [
		'Europe/London',
		'America/Sao_Paulo',
		'Africa/Cairo',
		'Asia/Beirut',
		'Australia/Lord_Howe',
		'Asia/Kathmandu',
		'America/St_Johns',
		'Pacific/Chatham'
	])
		for (let t = Date.UTC(2018, 9, 1); t < Date.UTC(2018, 11, 1); t += 86_400_000) {
			const day = new Date(t).toISOString().slice(0, 10);
			const start = startOfDay(day, zone);
			expect([zone, day, dayOf(start, zone), dayOf(start - 1, zone) < day]).toEqual([zone, day, day, true]);
			expect(endOfDay(day, zone)).toBe(startOfDay(new Date(t + 86_400_000).toISOString().slice(0, 10), zone));
		}
});
it('bounds may be instants, days, or none', () => {
	expect(spanOf('2026-11-24T10:30:00+02:00', '2026-11-24T10:30:00Z', 'Asia/Tokyo')).toEqual({
		from: Date.parse('2026-11-24T08:30Z'),
		until: Date.parse('2026-11-24T10:30Z')
	});
	expect(spanOf(null, null, 'Asia/Tokyo')).toEqual({ from: null, until: null });
	expect(spanOf('2026-11-24', '2026-11-24', 'Asia/Tokyo')).toEqual({ from: Date.parse('2026-11-23T15:00Z'), until: Date.parse('2026-11-24T15:00Z') });
});
