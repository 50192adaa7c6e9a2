import fc from 'fast-check';
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
	it('names are cut at 120 characters, spaces around either part are let be, and what is said of a wrong one is short', () => {
		expect(parseAddresses(['  "  Ann   Heron " <  ann@example.org >  '])).toEqual([{ email: 'ann@example.org', name: 'Ann Heron' }]);
		expect(parseAddresses([`${'n'.repeat(130)} <ann@example.org>`])[0]!.name).toBe('n'.repeat(120));
		expect(parseAddresses([' a@example.org '])).toEqual([{ email: 'a@example.org', name: '' }]);
		expect(() => parseAddresses(['x'.repeat(100)])).toThrow(`“${'x'.repeat(80)}” is not a mail address`);
		const long = (n: number) => `${'a'.repeat(n - 12)}@example.org`;
		expect([isAddress(long(320)), isAddress(long(321))]).toEqual([true, false]);
	});
	it('what is no address, or is there twice, is said', () => {
		expect(() => parseAddresses(['a@example.org', 'nobody'])).toThrow('“nobody” is not a mail address');
		expect(() => parseAddresses(['a@example.org', 'A <A@example.org>'])).toThrow('a@example.org is there twice');
		for (const text of ['', 'a@b', 'a b@example.org', 'a@example.org\r\nBcc: x@example.org', 'a@@example.org']) expect(isAddress(text)).toBe(false);
	});
	it('come back as they were written, however they were parted, quoted and spaced', () => {
		const word = fc.stringMatching(/^[a-z]{1,8}$/);
		const name = fc.array(fc.stringMatching(/^[A-Za-zÀ-ÿ'’-]{1,10}$/), { minLength: 0, maxLength: 3 }).map((words) => words.join(' '));
		const one = fc.record({ box: word, tag: fc.option(word), host: word, name, comma: fc.boolean(), form: fc.constantFrom('plain', 'angled', 'quoted') });
		const people = fc.uniqueArray(one, { selector: (p) => `${p.box}+${p.tag}@${p.host}`, minLength: 1, maxLength: 12 });
		fc.assert(
			fc.property(people, fc.array(fc.constantFrom(',', ';', '\n', ' ,\n', ';\r\n ', ',,')), (list, marks) => {
				const wanted = list.map((p) => ({
					email: `${p.box}${p.tag ? `+${p.tag}` : ''}@${p.host}.example`,
					// only quotation marks keep a comma in a name
					name: p.form === 'plain' ? '' : p.form === 'quoted' && p.comma && p.name ? `${p.name}, Ann` : p.name
				}));
				const text = wanted
					.map(({ email, name }, i) => {
						const { form } = list[i]!;
						const written = form === 'plain' ? email : form === 'quoted' ? `"${name}" <${email}>` : `${name} <${email}>`;
						return written + (marks[i] ?? '\n');
					})
					.join('');
				expect(parseAddresses(splitAddresses(text))).toEqual(wanted);
			}),
			{ numRuns: 500 }
		);
	});
	it('a line break never gets into a header of a mail by them', () => {
		fc.assert(
			fc.property(fc.array(fc.constantFrom('a@example.org', '\r\n', 'Bcc: x@example.org', '<', '>', '"', ' ', 'Ann', ',')), (parts) => {
				let read: readonly { email: string; name: string }[] = [];
				try {
					read = parseAddresses(splitAddresses(parts.join('')));
				} catch {
					return;
				}
				for (const { email, name } of read) expect(`${email}${name}`).not.toMatch(/[\r\n<>]/);
			}),
			{ numRuns: 2_000 }
		);
	});
});
