// In which order pages are looked through, and what the finder sees of them meanwhile. The document and what the finder keeps are small
// stand-ins in the shape of pdf.js's own; the room with the real ones is tried in tests/browser/reading.spec.ts.
import { afterEach, describe, expect, it, vi } from 'vitest';
import { LookThrough } from './look-through';

/** A document whose pages give their words when the test says so. */
function opened(pages: number, words: (page: number) => string = (page) => `page ${page}`) {
	const asked: number[] = [];
	const waiting = new Map<number, { give: () => void; fail: () => void }>();
	const pdf = {
		numPages: pages,
		getPage: (page: number) =>
			Promise.resolve({
				getTextContent: () => {
					asked.push(page);
					return new Promise((give, fail) =>
						waiting.set(page, {
							give: () => give({ items: [{ str: words(page), hasEOL: true }, { type: 'beginMarkedContent' }, { str: 'end', hasEOL: false }] }),
							fail: () => fail(new Error('not to be read'))
						})
					);
				}
			})
	};
	const finder = {
		_pageMatches: [] as (number[] | undefined)[],
		_extractTextPromises: [] as Promise<void>[],
		_pageContents: [] as string[],
		_pageDiffs: [],
		_hasDiacritics: []
	};
	const settle = () => new Promise((go) => setImmediate(go));
	/** Lets the pages that are being read come, and those after them, until none is left. */
	const all = async () => {
		for (;;) {
			await settle();
			if (!waiting.size) return;
			for (const [page, { give }] of [...waiting]) {
				waiting.delete(page);
				give();
			}
		}
	};
	return { pdf, finder, asked, waiting, settle, all };
}
const normalize = (text: string): [string, unknown, boolean] => [text.toUpperCase(), null, false];
type Made = ReturnType<typeof opened>;
const through = ({ pdf, finder }: Made, pagesWith: (words: readonly string[]) => Promise<readonly number[]>, ended = new AbortController().signal) =>
	new LookThrough(pdf as never, finder, normalize, pagesWith, ended);
const range = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => from + i);

afterEach(() => void vi.useRealTimers());

describe('a document of few pages', () => {
	it('is read from the page that is being read on, round to the one before it, and the server is not asked', async () => {
		const made = opened(5);
		const pagesWith = vi.fn(() => Promise.resolve([2]));
		expect(await through(made, pagesWith).prepare(['words'], 3)).toBe(true);
		await made.all();
		expect(made.asked).toEqual([3, 4, 5, 1, 2]);
		expect(pagesWith).not.toHaveBeenCalled();
		expect(made.finder._pageContents).toEqual(range(1, 5).map((n) => `PAGE ${n}\nEND`));
		await Promise.all(made.finder._extractTextPromises);
	});
});

describe('a long document', () => {
	it('is read where the words stand first, three pages at once, from the page that is being read on; the rest one by one', async () => {
		const made = opened(60);
		await through(made, () => Promise.resolve([7, 20, 44, 50])).prepare(['words'], 30);
		await made.settle();
		expect([...made.waiting.keys()]).toEqual([44, 50, 7]);
		made.waiting.get(50)!.give();
		made.waiting.delete(50);
		await made.settle();
		expect(made.asked).toEqual([44, 50, 7, 20]);
		for (const page of [44, 7, 20]) {
			made.waiting.get(page)!.give();
			made.waiting.delete(page);
		}
		await made.settle();
		expect([...made.waiting.keys()]).toEqual([30]);
		await made.all();
		expect(made.asked.slice(4)).toEqual([...range(30, 60), ...range(1, 29)].filter((n) => ![7, 20, 44, 50].includes(n)));
		expect(new Set(made.asked).size).toBe(60);
	});
	it('has nothing on pages where the server knows of nothing, as far as the finder goes by them, until they were read', async () => {
		const made = opened(60);
		await through(made, () => Promise.resolve([7])).prepare(['words'], 1);
		const matches = made.finder._pageMatches;
		expect([matches[6], matches[7], matches[59], matches[60]]).toEqual([undefined, [], [], undefined]);
		// what was found counts, and what is only unlikely does not
		matches[9] = [4];
		let counted = 0;
		matches.forEach(() => counted++);
		expect([matches[9], counted, matches.length]).toEqual([[4], 1, 10]);
		await made.all();
		expect([matches[7], matches[59]]).toEqual([undefined, undefined]);
	});
	it('is read from the page on where the server cannot say', async () => {
		const made = opened(60);
		await through(made, () => Promise.reject(new Error('unwell'))).prepare(['words'], 58);
		expect(made.finder._pageMatches[20]).toBeUndefined();
		await made.all();
		expect(made.asked).toEqual([58, 59, 60, ...range(1, 57)]);
	});
	it('waits for the server no longer than two and a half seconds', async () => {
		vi.useFakeTimers();
		const made = opened(60);
		let ready: boolean | undefined;
		void through(made, () => new Promise(() => undefined))
			.prepare(['words'], 1)
			.then((is) => (ready = is));
		await vi.advanceTimersByTimeAsync(2_499);
		expect([ready, made.asked]).toEqual([undefined, []]);
		await vi.advanceTimersByTimeAsync(1);
		expect([ready, made.asked]).toEqual([true, [1]]);
	});
	it('is asked for the last words alone: a find that was overtaken gives way', async () => {
		const made = opened(60);
		const answers: ((pages: number[]) => void)[] = [];
		const finds = through(made, () => new Promise((give) => answers.push(give)));
		const [first, second] = [finds.prepare(['a'], 1), finds.prepare(['ab'], 1)];
		answers[1]!([9]);
		expect(await second).toBe(true);
		answers[0]!([33]);
		expect(await first).toBe(false);
		await made.settle();
		expect(made.asked).toEqual([9]);
	});
	it('goes on with other words in another order, and reads no page twice', async () => {
		const made = opened(60);
		const finds = through(made, (words) => Promise.resolve(words[0] === 'first' ? [5] : [5, 50]));
		await finds.prepare(['first'], 1);
		await made.settle();
		await finds.prepare(['second'], 1);
		await made.settle();
		// the one is still on its way; the other need not wait for it
		expect(made.asked).toEqual([5, 50]);
		await made.all();
		expect([made.asked.length, new Set(made.asked).size]).toEqual([60, 60]);
		await Promise.all(made.finder._extractTextPromises);
	});
	it('is let be when the find ends, and gone on with at the next', async () => {
		const made = opened(60);
		const finds = through(made, () => Promise.resolve([]));
		await finds.prepare(['words'], 1);
		await made.settle();
		finds.stop();
		await made.all();
		expect(made.asked).toEqual([1]);
		await finds.prepare(['words'], 10);
		await made.all();
		expect(made.asked.slice(0, 3)).toEqual([1, 10, 11]);
		expect(new Set(made.asked).size).toBe(60);
	});
	it('says nothing of pages that do not come any more because the document was closed, and asks for no others', async () => {
		const made = opened(60);
		const said = vi.spyOn(console, 'error');
		const closed = new AbortController();
		await through(made, () => Promise.resolve([2, 3]), closed.signal).prepare(['words'], 1);
		await made.settle();
		closed.abort();
		for (const { fail } of made.waiting.values()) fail();
		made.waiting.clear();
		await made.all();
		expect([made.asked, said.mock.calls]).toEqual([[2, 3], []]);
		said.mockRestore();
	});
	it('a page whose words cannot be read has none, and holds up no other', async () => {
		const made = opened(45);
		const said = vi.spyOn(console, 'error').mockImplementation(() => undefined);
		await through(made, () => Promise.resolve([2])).prepare(['words'], 1);
		await made.settle();
		made.waiting.get(2)!.fail();
		made.waiting.delete(2);
		await made.all();
		expect([made.finder._pageContents[1], made.finder._pageContents[2], made.asked.length]).toEqual(['', 'PAGE 3\nEND', 45]);
		expect(said).toHaveBeenCalledOnce();
		said.mockRestore();
	});
});
