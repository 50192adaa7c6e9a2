import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { stampNumber, stampNumbersIn, stampWords } from './stamp';

describe('stamps', () => {
	it('a number is sixteen signs that cannot be taken for one another', () => {
		expect(stampNumber(new Uint8Array(10))).toBe('0000-0000-0000-0000');
		expect(stampNumber(new Uint8Array(10).fill(255))).toBe('ZZZZ-ZZZZ-ZZZZ-ZZZZ');
		// 5 bits a sign: 00001 00010 00011 00100 …
		expect(stampNumber(Uint8Array.from([0x08, 0x86, 0x42, 0x98, 0xe8, 0, 0, 0, 0, 0]))).toBe('1234-5678-0000-0000');
		expect(() => stampNumber(new Uint8Array(9))).toThrow(RangeError);
	});
	it('is found again in the text of a copy, also as a scanner reads it', () => {
		fc.assert(
			fc.property(fc.uint8Array({ minLength: 10, maxLength: 10 }), fc.string(), (random, around) => {
				const number = stampNumber(random);
				expect(stampNumbersIn(`${around} ${stampWords('Wren Lockyer', '2026-11-25', number)} ${around}`)).toContain(number);
				expect(stampNumbersIn(number.toLowerCase().replaceAll('0', 'o').replaceAll('1', 'l'))).toEqual([number]);
			})
		);
		expect(stampNumbersIn('Call 0123-456-789 or ISBN 978-3-16-148410-0')).toEqual([]);
	});
	it('the line says whose copy it is, and since when', () => {
		expect(stampWords('Wren Lockyer', '2026-11-05', '7K3Q-9XWD-11AB-ZZ09')).toBe('Copy of Wren Lockyer, 5 November 2026, no. 7K3Q-9XWD-11AB-ZZ09');
	});
});
