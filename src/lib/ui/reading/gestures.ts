// What the wheel and fingers do to the pages: one finger to the side turns where pages are turned, two zoom, and so does the wheel with Ctrl;
// two taps bring the column under them to the width of the window, and two more all back.
import { columnAt } from '#core/reading/column';
import type { Fit } from '#core/reading/settings';
import type { Room } from './room.svelte';

/** The least time between two turns by the wheel, ms. */
const turnEvery = 350;
/** A finger that went so far to the side, and twice as far as up or down, meant to turn; px. */
const swipe = 50;

/** Two taps are one gesture within so long and so near, ms and px. */
const [tapTime, tapSpace] = [350, 30];
/** Room at the sides of a column that fills the window, px. */
const beside = 10;

const apart = (a: Touch, b: Touch) => Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY);

/** Listens on the box in which the pages scroll; gives what ends it. */
export function gestures(room: Room, box: HTMLElement): () => void {
	let wheeledAt = 0;
	function wheel(event: WheelEvent): void {
		if (event.ctrlKey || event.metaKey) {
			event.preventDefault();
			room.zoomAround(Math.exp(-event.deltaY / 300), event.clientX, event.clientY);
			return;
		}
		if (room.way === 'across' && !event.deltaX && box.scrollWidth > box.clientWidth && box.scrollHeight <= box.clientHeight) {
			box.scrollLeft += event.deltaY;
			event.preventDefault();
			return;
		}
		if (!room.byTurns || !event.deltaY) return;
		const atEnd = event.deltaY > 0 ? box.scrollTop + box.clientHeight >= box.scrollHeight - 2 : box.scrollTop <= 2;
		if (!atEnd || event.timeStamp - wheeledAt < turnEvery) return;
		wheeledAt = event.timeStamp;
		room.step(event.deltaY > 0 ? 1 : -1);
	}

	/** Where the first finger came down, and how far a second was from it, px; 0 with one finger. */
	let touched: { x: number; y: number; apart: number } | null = null;
	function start({ touches: [first, second] }: TouchEvent): void {
		if (first) touched = { x: first.clientX, y: first.clientY, apart: second ? apart(first, second) : 0 };
	}
	function move(event: TouchEvent): void {
		const [first, second] = event.touches;
		if (!touched?.apart || !first || !second || event.touches.length !== 2) return;
		event.preventDefault();
		const now = apart(first, second);
		if (Math.abs(now / touched.apart - 1) < 0.02) return;
		room.zoomAround(now / touched.apart, (first.clientX + second.clientX) / 2, (first.clientY + second.clientY) / 2);
		touched.apart = now;
	}
	let tapped = { x: 0, y: 0, at: -Infinity };
	/** How the pages were shown before a column was brought near, and how then: another choice since ends it. */
	let near: { before: Fit | number; now: Fit | number } | null = null;
	function tap({ clientX: x, clientY: y, target }: Touch, at: number): void {
		const isSecond = at - tapped.at < tapTime && Math.hypot(x - tapped.x, y - tapped.y) < tapSpace;
		tapped = { x, y, at: isSecond ? -Infinity : at };
		if (!isSecond || !room.has('fit') || !(target instanceof Element) || target.closest('a, button, input, select, textarea')) return;
		if (near && near.now === room.fit) {
			room.setFit(near.before);
			near = null;
			return;
		}
		const words = [...(target.closest('.page')?.querySelectorAll('.textLayer span') ?? [])].map((span) => span.getBoundingClientRect());
		const column = columnAt(
			words.filter((word) => word.width > 0),
			x,
			y
		);
		if (!column) return;
		const [before, from] = [room.fit, room.percent];
		room.zoomAround((box.clientWidth - 2 * beside) / (column.right - column.left), x, y);
		near = { before, now: room.fit };
		// what was under the finger is there still: from there the column is moved to its place
		box.scrollLeft += x - ((x - column.left) * room.percent) / from - (box.getBoundingClientRect().left + beside);
	}

	function end({ changedTouches: [left], timeStamp }: TouchEvent): void {
		const from = touched;
		touched = null;
		if (from && !from.apart && left && Math.hypot(left.clientX - from.x, left.clientY - from.y) < 10) tap(left, timeStamp);
		if (!from || from.apart || !left || !room.byTurns || box.scrollWidth > box.clientWidth + 2) return;
		const [dx, dy] = [left.clientX - from.x, left.clientY - from.y];
		if (Math.abs(dx) > swipe && Math.abs(dx) > 2 * Math.abs(dy) && !getSelection()?.toString()) room.step(dx < 0 !== room.fromRight ? 1 : -1);
	}

	const ending = new AbortController();
	// the wheel with Ctrl zooms the pages, not the whole window: it must be possible to hold that back
	box.addEventListener('wheel', wheel, { passive: false, signal: ending.signal });
	box.addEventListener('touchstart', start, { passive: true, signal: ending.signal });
	box.addEventListener('touchmove', move, { passive: false, signal: ending.signal });
	box.addEventListener('touchend', end, { signal: ending.signal });
	return () => ending.abort();
}
