import { expect, it } from 'vitest';
import fc from 'fast-check';
import { carriedOver } from './carry-over';

it('two changes made of the same leave both, whichever is saved first', () => {
	const was = { frame: { width: '80%' }, button: { press: 'save' } };
	const [one, other] = [
		{ ...was, frame: { width: '60%' } },
		{ ...was, frame: { width: '80%', height: 500 } }
	];
	const both = { ...was, frame: { width: '60%', height: 500 } };
	expect(carriedOver(was, other, one)).toEqual(both);
	expect(carriedOver(was, one, other)).toEqual(both);
});

it('what is taken away goes, and lists are one value', () => {
	expect(carriedOver({ a: 1, b: 2 }, { b: 2 }, { a: 1, b: 3, c: 4 })).toEqual({ b: 3, c: 4 });
	expect(carriedOver({ a: [1, 2] }, { a: [1, 2, 3] }, { a: [0] })).toEqual({ a: [1, 2, 3] });
	expect([carriedOver({ a: 1 }, null, { a: 2 }), carriedOver(undefined, { a: 1 }, undefined)]).toEqual([null, { a: 1 }]);
});

it('where nothing else was changed, it is what is wanted; where nothing is wanted, nothing changes', () => {
	const settings = fc.dictionary(fc.constantFrom('a', 'b', 'c'), fc.oneof(fc.integer(), fc.dictionary(fc.constantFrom('x', 'y'), fc.integer())));
	fc.assert(
		fc.property(settings, settings, (was, other) => {
			expect(carriedOver(was, other, was)).toEqual(other);
			expect(carriedOver(was, was, other)).toEqual(other);
		})
	);
});
