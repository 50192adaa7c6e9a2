import { describe, expect, it } from 'vitest';
import { isAddress, parseAddresses, splitAddresses } from './addresses';

describe('pasted addresses', () => {
	it('are parted by lines, commas and semicolons, not inside quotation marks', () => {
		expect(splitAddresses('a@example.org, b@example.org;\n\n"Heron, Ann" <ann@example.org>\n')).toEqual([
			'a@example.org',
			'b@example.org',
			'"Heron, Ann" <ann@example.org>'
		]);
		expect(splitAddresses(' \n,; ')).toEqual([]);
	});
	it('have a name or none', () => {
		expect(parseAddresses(['A@Example.org', '"Heron, Ann" <ann@example.org>', 'Ben  Coot <ben@example.org>', '<cem@example.org>'])).toEqual([
			{ email: 'a@example.org', name: '' },
			{ email: 'ann@example.org', name: 'Heron, Ann' },
			{ email: 'ben@example.org', name: 'Ben Coot' },
			{ email: 'cem@example.org', name: '' }
		]);
	});
	it('what is no address, or is there twice, is said', () => {
		expect(() => parseAddresses(['a@example.org', 'nobody'])).toThrow('“nobody” is not a mail address');
		expect(() => parseAddresses(['a@example.org', 'A <A@example.org>'])).toThrow('a@example.org is there twice');
		for (const text of ['', 'a@b', 'a b@example.org', 'a@example.org\r\nBcc: x@example.org', 'a@@example.org']) expect(isAddress(text)).toBe(false);
	});
});
