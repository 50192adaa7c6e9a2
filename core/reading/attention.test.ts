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
});
