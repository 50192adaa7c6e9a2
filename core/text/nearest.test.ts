import { describe, expect, it } from 'vitest';
import { distance, nearestOf } from './nearest';

describe('the nearest name', () => {
	it('is told by the letters to change; the examples are the classical ones (Levenshtein distance, from memory)', () => {
		expect([distance('kitten', 'sitting'), distance('flaw', 'lawn'), distance('', 'abc'), distance('same', 'same')]).toEqual([3, 2, 3, 0]);
		expect(nearestOf('IANUA_PROT', ['IANUA_DATA', 'IANUA_PORT', 'IANUA_HOST'])).toBe('IANUA_PORT');
	});
});
