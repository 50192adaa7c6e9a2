import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { comparePages } from './compare';

const kinds = (before: string[], after: string[]) => comparePages(before, after).pages.map((p) => p.kind);

describe('comparing editions', () => {
	it('the same pages are the same, whatever their spacing', () => {
		expect(comparePages(['one  two\n three', 'four'], ['one two three', 'four '])).toMatchObject({ added: 0, removed: 0, whole: true });
		expect(kinds(['one  two'], ['one two'])).toEqual(['same']);
	});
	it('a page put in moves the others without changing them', () => {
		const { pages, added, removed } = comparePages(['a b', 'c d', 'e f'], ['a b', 'brand new words', 'c d', 'e f']);
		expect(pages.map((p) => [p.kind, p.before, p.after])).toEqual([
			['same', 1, 1],
			['added', null, 2],
			['same', 2, 3],
			['same', 3, 4]
		]);
		expect([added, removed]).toEqual([3, 0]);
	});
	it('a page taken out is gone, the rest the same', () => expect(kinds(['a', 'b', 'c'], ['a', 'c'])).toEqual(['same', 'removed', 'same']));
	it('words changed on a page are told one by one', () => {
		const { pages, added, removed } = comparePages(['The lock closes on Monday until March.'], ['The lock closes on Tuesday until the end of March.']);
		expect(pages[0]!.kind).toBe('changed');
		const told = (kind: string) => pages[0]!.parts.filter((p) => p.kind === kind).map((p) => p.text.trim());
		expect(told('removed')).toEqual(['Monday']);
		expect(told('added')).toEqual(['Tuesday', 'the end of']);
		expect([added, removed]).toEqual([4, 1]);
	});
	it('long stretches without a change are cut to what stands beside it', () => {
		const long = Array.from({ length: 400 }, (_, i) => `word${i}`).join(' ');
		const [page] = comparePages([`${long} old ${long}`], [`${long} new ${long}`]).pages;
		expect(page!.parts.map((p) => p.text.length).reduce((a, b) => a + b)).toBeLessThan(200);
		expect(page!.parts.some((p) => p.text.includes('…'))).toBe(true);
	});
	const pagesOf = fc.array(
		fc.array(fc.constantFrom('lock', 'weir', 'boat', 'gate', 'März'), { maxLength: 8 }).map((w) => w.join(' ')),
		{ maxLength: 8 }
	);
	it('every page of both editions is named once, in order', () => {
		fc.assert(
			fc.property(pagesOf, pagesOf, (before, after) => {
				const { pages } = comparePages(before, after);
				const named = (side: 'before' | 'after') => pages.map((p) => p[side]).filter((n) => n !== null);
				expect(named('before').sort((a, b) => a - b)).toEqual(before.map((_, i) => i + 1));
				expect(named('after')).toEqual(after.map((_, i) => i + 1));
			})
		);
	});
	it('what is added one way is removed the other way, where no page is paired', () => {
		fc.assert(
			fc.property(pagesOf, (pages) => {
				const there = comparePages([], pages);
				const back = comparePages(pages, []);
				expect([there.added, there.removed]).toEqual([back.removed, back.added]);
				expect(comparePages(pages, pages)).toMatchObject({ added: 0, removed: 0 });
			})
		);
	});
	it('of a page that changed, what is the same is cut to 60 characters beside the change, at an end only on that side', () => {
		const long = Array.from({ length: 60 }, (_, i) => `w${i}`).join(' ');
		const parts = comparePages([`${long} old ${long} last`], [`${long} new ${long} end`]).pages[0]!.parts;
		const same = parts.filter((p) => p.kind === 'same').map((p) => p.text);
		expect(same).toHaveLength(2);
		const [first, middle] = [`${long} `, ` ${long} `];
		expect(same[0]).toBe(` … ${first.slice(-60)}`);
		expect(same[1]).toBe(`${middle.slice(0, 60)} … ${middle.slice(-60)}`);
		// up to 140 characters stand whole
		const short = `${'a'.repeat(138)} `;
		expect(comparePages([`x ${short}y`], [`z ${short}v`]).pages[0]!.parts.find((p) => p.kind === 'same' && p.text.includes('aaa'))!.text).not.toContain('…');
	});
	it('pages that changed are paired in order, and those left over stand alone', () => {
		expect(comparePages(['a1', 'b1', 'end'], ['a2', 'b2', 'c2', 'end']).pages.map((p) => [p.kind, p.before, p.after])).toEqual([
			['changed', 1, 1],
			['changed', 2, 2],
			['added', null, 3],
			['same', 3, 4]
		]);
		expect(comparePages(['a1', 'b1', 'c1'], ['a2']).pages.map((p) => [p.kind, p.before, p.after])).toEqual([
			['changed', 1, 1],
			['removed', 2, null],
			['removed', 3, null]
		]);
	});
	it('pages that have nothing in common are told as out and in, and said not to be compared word by word where that takes too long', () => {
		const many = (letter: string) => Array.from({ length: 5_000 }, (_, i) => `${letter}${i}`).join(' ');
		const { pages, added, removed, whole } = comparePages([many('a')], [many('b')]);
		expect([whole, added, removed]).toEqual([false, 5_000, 5_000]);
		expect(pages[0]!.parts.map((p) => p.kind)).toEqual(['removed', 'added']);
	});
});
