import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { namesInZip } from './zip-names';

describe('names in a zip', () => {
	it.each([
		[
			['a.pdf', 'A.pdf', 'a.pdf'],
			['a.pdf', 'A (2).pdf', 'a (3).pdf']
		],
		[
			['../../etc/passwd', 'c:\\temp\\b.pdf'],
			['passwd', 'b.pdf']
		],
		[
			['', '..', 'no end', '.hidden'],
			['document.pdf', 'document (2).pdf', 'no end', '.hidden']
		],
		[
			['what?.pdf', 'über Brücken.pdf', 'الأهوسة.pdf'],
			['what_.pdf', 'über Brücken.pdf', 'الأهوسة.pdf']
		],
		// a name that the numbering itself would give
		[
			['a.pdf', 'a (2).pdf', 'a.pdf'],
			['a.pdf', 'a (2).pdf', 'a (3).pdf']
		]
	])('%j are %j', (given, named) => expect(namesInZip(given)).toEqual(named));
	it('are each there once, without a path, whatever is given', () => {
		fc.assert(
			fc.property(fc.array(fc.string(), { maxLength: 30 }), (given) => {
				const named = namesInZip(given);
				expect(new Set(named.map((name) => name.toLowerCase())).size).toBe(given.length);
				for (const name of named) expect(name).not.toMatch(/[\\/\u0000]|^\.*$/);
			})
		);
	});
});
