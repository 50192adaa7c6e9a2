// Attention, as the model defines it: seconds with the page seen, the window in front, and a sign of life within 60 s.
import { describe, expect, it } from 'vitest';
import { AttentionClock, isSeen } from './attention';

const s = 1000;

describe('a page is seen', () => {
	it('when half of it is, or when it fills half the window', () => {
		expect([isSeen(0.5, 0.1), isSeen(0.2, 0.6), isSeen(0.49, 0.49)]).toEqual([true, true, false]);
	});
});

describe('the clock of attention', () => {
	it('counts a page while it is seen', () => {
		const clock = new AttentionClock(0);
		clock.see([1], 0);
		clock.see([2], 10 * s);
		expect(clock.take(14 * s)).toEqual([
			{ page: 1, seconds: 10 },
			{ page: 2, seconds: 4 }
		]);
		expect(clock.take(14 * s)).toEqual([]);
	});
	it('stops 60 s after the last sign of life, and goes on with the next', () => {
		const clock = new AttentionClock(0);
		clock.see([1], 0);
		expect(clock.take(200 * s)).toEqual([{ page: 1, seconds: 60 }]);
		clock.sign(300 * s);
		expect(clock.take(310 * s)).toEqual([{ page: 1, seconds: 10 }]);
	});
	it('counts on while somebody moves now and then', () => {
		const clock = new AttentionClock(0);
		clock.see([1], 0);
		for (let at = 0; at <= 180; at += 30) clock.sign(at * s);
		expect(clock.take(190 * s)).toEqual([{ page: 1, seconds: 190 }]);
	});
	it('stands still while the tab is hidden or the window is not in front', () => {
		const clock = new AttentionClock(0);
		clock.see([1], 0);
		clock.attended(false, 5 * s);
		clock.attended(true, 40 * s);
		expect(clock.take(45 * s)).toEqual([{ page: 1, seconds: 10 }]);
	});
	it('what is scrolled past is not read', () => {
		const clock = new AttentionClock(0);
		clock.see([1], 0);
		for (let page = 2; page <= 40; page++) clock.see([page], 5 * s + page * 100);
		expect(clock.take(20 * s)).toEqual([
			{ page: 1, seconds: 5.2 },
			{ page: 40, seconds: 11 }
		]);
	});
	it('two facing pages share their time', () => {
		const clock = new AttentionClock(0);
		clock.see([2, 3], 0);
		expect(clock.take(10 * s)).toEqual([
			{ page: 2, seconds: 5 },
			{ page: 3, seconds: 5 }
		]);
	});
	it('a page that stays in sight while the next comes keeps its time', () => {
		const clock = new AttentionClock(0);
		clock.see([1], 0);
		clock.see([1, 2], 4 * s);
		clock.see([2], 6 * s);
		expect(clock.take(9 * s)).toEqual([
			{ page: 1, seconds: 5 },
			{ page: 2, seconds: 4 }
		]);
	});
	it('nothing is lost between batches, and nothing counted twice', () => {
		const clock = new AttentionClock(0);
		clock.see([1], 0);
		let all = 0;
		for (let at = 0; at <= 30 * s; at += 1250) {
			clock.sign(at);
			all += clock.take(at).reduce((sum, p) => sum + p.seconds, 0);
		}
		expect(all).toBeCloseTo(30, 0);
	});
	it('a look of less than a second at the end is none', () => {
		const clock = new AttentionClock(0);
		clock.see([1], 0);
		expect(clock.take(0.8 * s, true)).toEqual([]);
		clock.see([2], 10 * s);
		expect(clock.take(12 * s, true)).toEqual([
			{ page: 1, seconds: 9.2 },
			{ page: 2, seconds: 2 }
		]);
	});
	it('what was not told yet stays, down to the tenth; what is told is told once', () => {
		const clock = new AttentionClock(0);
		clock.see([1], 0);
		clock.see([2], 1_050);
		expect(clock.take(1_050)).toEqual([{ page: 1, seconds: 1 }]);
		clock.see([1], 2_100);
		clock.see([2], 3_200);
		// 50 ms were left of page 1, and 1,100 came
		expect(clock.take(3_200)).toEqual([
			{ page: 1, seconds: 1.1 },
			{ page: 2, seconds: 1 }
		]);
	});
	it('pages are told in their order, however they were read', () => {
		const clock = new AttentionClock(0);
		for (const [i, page] of [9, 2, 11].entries()) clock.see([page], i * 5 * s);
		expect(clock.take(15 * s).map((p) => p.page)).toEqual([2, 9, 11]);
	});
	it('a stay of a second counts, one that is shorter does not', () => {
		for (const [stay, seconds] of [
			[999, []],
			[1_000, [{ page: 1, seconds: 1 }]]
		] as const) {
			const clock = new AttentionClock(0);
			clock.see([1], 0);
			clock.see([2], stay);
			expect(clock.take(stay)).toEqual(seconds);
			const leaving = new AttentionClock(0);
			leaving.see([1], 0);
			expect(leaving.take(stay, true)).toEqual(seconds);
		}
	});
	it('the same pages told again change nothing: their stay goes on', () => {
		const clock = new AttentionClock(0);
		clock.see([1], 0);
		clock.see([1], 600);
		clock.see([2], 1_100);
		expect(clock.take(1_100)).toEqual([{ page: 1, seconds: 1.1 }]);
	});
	it('coming back to the window is a sign of life; staying in it is none', () => {
		const clock = new AttentionClock(0);
		clock.see([1], 0);
		clock.attended(true, 50 * s);
		expect(clock.take(100 * s)).toEqual([{ page: 1, seconds: 60 }]);
		clock.attended(false, 110 * s);
		clock.attended(true, 120 * s);
		expect(clock.take(200 * s)).toEqual([{ page: 1, seconds: 60 }]);
	});
	it('no page is given more than 300 s between two signs, nor anything where none is seen', () => {
		const clock = new AttentionClock(0);
		clock.see([], 0);
		expect(clock.take(30 * s)).toEqual([]);
		clock.sign(30 * s);
		clock.see([1], 30 * s);
		clock.sign(30 * s);
		expect(clock.take(500 * s)).toEqual([{ page: 1, seconds: 60 }]);
	});
});
