import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { isLink, isOwnPath } from './link';
import { asLine, linePattern } from './line';

describe('a line', () => {
	const fits = (text: string) => new RegExp(linePattern, 'u').test(text);
	it('has something to see and nothing that breaks it', () => {
		for (const good of ['Wren Lockyer', 'Zoë Łódzka-Шлюз', 'محمد', ' a ']) expect(fits(good), good).toBe(true);
		for (const bad of ['', ' ', 'a\nb', 'a\r\nBcc: x@example.org', 'a\tb', 'a\u2028b', 'a\u0085b', 'a\u0000'])
			expect(fits(bad), JSON.stringify(bad)).toBe(false);
	});
	it('is what asLine makes of any text that has something to see', () => {
		fc.assert(fc.property(fc.string({ unit: 'binary' }), (text) => asLine(text) === '' || fits(asLine(text))));
	});
});

describe('a link', () => {
	it('leads to a path of this site, or openly elsewhere', () => {
		for (const good of ['/', '/members/notices', '/d/a?x=1#page=2', 'https://example.org/a b', 'mailto:a@example.org', 'tel:+44', '#there'])
			expect(isLink(good), good).toBe(true);
		for (const bad of [
			'//evil.example',
			'/\\evil.example',
			'/\t/evil.example',
			'/\n/evil.example',
			'javascript:alert(1)',
			'data:text/html,x',
			'\\\\evil.example',
			''
		])
			expect(isLink(bad), JSON.stringify(bad)).toBe(false);
	});
	it('that passes for a path of this site is one for a browser too (URL Standard, by Node’s own)', () => {
		const piece = fc.constantFrom('/', '\\', '\t', '\n', '\r', ' ', '.', '..', '%2f', '@', ':', 'evil.example', 'a', '?', '#');
		fc.assert(
			fc.property(fc.array(piece, { maxLength: 8 }), (parts) => {
				const text = `/${parts.join('')}`;
				if (isOwnPath(text)) expect(new URL(text, 'https://ours.example').origin).toBe('https://ours.example');
			}),
			{ numRuns: 5000 }
		);
	});
});
