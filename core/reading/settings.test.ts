// The reading room's settings: site, document, placement, reader; and which pages stand together.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { defaultsOf, frameHref, pressHref } from '../placing/placement';
import {
	asItComes,
	askedFor,
	askedSettings,
	boundZoom,
	byTurns,
	fits,
	inPairs,
	readersChoice,
	roomSettings,
	roomTools,
	stepFrom,
	togetherWith,
	ways,
	zoomStep,
	type ReadingSettings
} from './settings';

const asked = (query: string) => {
	const params = new URLSearchParams(query);
	return askedSettings((name) => params.get(name));
};

describe('what holds in a room', () => {
	it('is as it comes where nobody says otherwise', () => {
		expect(roomSettings('window', [])).toEqual({
			way: 'down',
			fit: 'comfortable',
			cover: true,
			foreEdge: true,
			tools: roomTools,
			hideTools: false,
			theme: 'system',
			back: null
		});
		expect(asItComes('page')).toMatchObject({ fit: 'page', foreEdge: false });
	});
	it('is what the later says: the document over the site, the placement over the document', () => {
		const site: ReadingSettings = { way: 'book', fit: 'height', theme: 'dark' };
		const document: ReadingSettings = { way: 'across', back: '/library' };
		const room = roomSettings('window', [site, document, { fit: 'width' }]);
		expect(room).toMatchObject({ way: 'across', fit: 'width', theme: 'dark', back: '/library' });
		expect(roomSettings('window', [site, null, undefined]).way).toBe('book');
	});
	it('has no fore-edge in a frame unless its placement asks for one', () => {
		expect(roomSettings('page', [{ foreEdge: true }, null, {}]).foreEdge).toBe(false);
		expect(roomSettings('page', [null, null, { foreEdge: true }]).foreEdge).toBe(true);
		expect(roomSettings('over', [{ foreEdge: false }, null, {}]).foreEdge).toBe(false);
	});
});

it('zoom goes from each step to the next and back, from between two to the nearer end of its way, and stops at the ends', () => {
	const steps = [10, 15, 25, 33, 50, 67, 75, 90, 100, 110, 125, 150, 175, 200, 250, 300, 400, 500, 600];
	let [up, down] = [[10], [600]];
	while (up.length < 30 && zoomStep(up.at(-1)!, 1) !== up.at(-1)) up = [...up, zoomStep(up.at(-1)!, 1)];
	while (down.length < 30 && zoomStep(down.at(-1)!, -1) !== down.at(-1)) down = [...down, zoomStep(down.at(-1)!, -1)];
	expect([up, down.reverse()]).toEqual([steps, steps]);
	expect([zoomStep(93, 1), zoomStep(93, -1), zoomStep(1, 1), zoomStep(1, -1), zoomStep(900, 1), zoomStep(900, -1)]).toEqual([100, 90, 10, 10, 600, 600]);
	expect([boundZoom(9), boundZoom(10), boundZoom(600), boundZoom(601)]).toEqual([10, 10, 600, 600]);
});

describe('what an address asks for', () => {
	it('passes over what makes no sense', () => {
		expect(asked('')).toEqual({});
		expect(asked('way=sideways&fit=huge&theme=purple')).toEqual({});
		expect(asked('way=book&fit=width&edge=1&tools=save+fly+find&theme=dark&cover=0')).toEqual({
			way: 'book',
			fit: 'width',
			foreEdge: true,
			tools: ['save', 'find'],
			theme: 'dark',
			cover: false
		});
		expect(asked('tools=none').tools).toEqual([]);
	});
	it('comes back as it was given', () => {
		const settings = fc.record(
			{
				way: fc.constantFrom(...ways),
				fit: fc.constantFrom(...fits),
				cover: fc.boolean(),
				foreEdge: fc.boolean(),
				tools: fc.subarray([...roomTools]),
				theme: fc.constantFrom('system', 'light', 'dark' as const)
			},
			{ requiredKeys: [] }
		);
		fc.assert(
			fc.property(settings, (given) => {
				expect(asked(askedFor(given).join('&'))).toEqual(given);
			})
		);
	});
	it('is what a placement says', () => {
		const frame = { ...defaultsOf('frame'), way: 'turning' as const, tools: ['fit' as const], foreEdge: true };
		expect(asked(frameHref('map', 'abcdef', frame).split('?')[1]!)).toEqual({ way: 'turning', tools: ['fit'], foreEdge: true });
		expect(asked(frameHref('map', 'abcdef', defaultsOf('frame')).split('?')[1]!)).toEqual({});
		expect(pressHref('map', 'over', 'abcdef', { start: 4, way: 'book', fit: 'height' })).toBe('/d/map/read?from=abcdef&way=book&fit=height#page=4');
	});
});

describe('what a reader has chosen', () => {
	it('is taken as far as it is one', () => {
		expect(readersChoice({ way: 'tiled', fit: 140, theme: 'dark' })).toEqual({ way: 'tiled', fit: 140, theme: 'dark' });
		expect(readersChoice({ way: 'flying', fit: 9000, theme: 3 })).toEqual({ fit: 600 });
		for (const kept of [null, undefined, 'book', 7, []]) expect(readersChoice(kept)).toEqual({});
	});
});

describe('zoom', () => {
	it('goes by steps from 10 to 600 %', () => {
		expect([zoomStep(100, 1), zoomStep(100, -1), zoomStep(63.2, 1), zoomStep(600, 1), zoomStep(10, -1)]).toEqual([110, 90, 67, 600, 10]);
		expect([boundZoom(3), boundZoom(140), boundZoom(10_000)]).toEqual([10, 140, 600]);
	});
});

describe('pages that stand together', () => {
	it('are two in a book, the first alone as a cover or not', () => {
		expect([1, 2, 3, 4, 8].map((page) => togetherWith(page, 8, 'book', true))).toEqual([[1], [2, 3], [2, 3], [4, 5], [8]]);
		expect([1, 2, 3, 8].map((page) => togetherWith(page, 8, 'turning', false))).toEqual([
			[1, 2],
			[1, 2],
			[3, 4],
			[7, 8]
		]);
		expect(togetherWith(7, 7, 'book', false)).toEqual([7]);
		expect(togetherWith(5, 8, 'down', true)).toEqual([5]);
	});
	it('which ways show pairs, and which turn', () => {
		expect(ways.filter(inPairs)).toEqual(['book', 'turning']);
		expect(ways.filter(byTurns)).toEqual(['one-by-one', 'book', 'turning']);
	});
	it('a walk forward meets every page once, and back again', () => {
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 60 }), fc.constantFrom(...ways), fc.boolean(), (pages, way, cover) => {
				const met: number[] = [];
				let page: number | null = 1;
				let last = 1;
				while (page !== null) {
					met.push(...togetherWith(page, pages, way, cover));
					last = page;
					page = stepFrom(page, pages, way, cover, 1);
				}
				expect(met).toEqual(Array.from({ length: pages }, (_, i) => i + 1));
				const back: number[] = [];
				for (page = last; page !== null; page = stepFrom(page, pages, way, cover, -1)) back.unshift(...togetherWith(page, pages, way, cover));
				expect(back).toEqual(met);
			})
		);
	});
});
