import { describe, expect, it } from 'vitest';
import { dayText } from './when';

describe('a day in words', () => {
	const now = Date.parse('2026-12-01T12:00Z');
	it.each([
		['2026-12-15', 'America/New_York', '15 December'],
		['2026-12-15', 'Pacific/Kiritimati', '15 December'],
		['2027-01-01', 'America/New_York', '1 January 2027'],
		['2026-12-31', 'Pacific/Kiritimati', '31 December'],
		['2026-12-15T03:00:00Z', 'America/New_York', '14 December'],
		['2026-12-15T03:00:00Z', 'Europe/London', '15 December']
	])('%s in %s is %s: a day is the same everywhere, an instant is not', (iso, zone, words) => {
		expect(dayText(iso, zone, now)).toBe(words);
	});
});
