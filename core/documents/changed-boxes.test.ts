import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { changedBoxes } from './changed-boxes';

/** A mask with filled rectangles, each x, y, width, height in px. */
function mask(width: number, height: number, ...filled: readonly (readonly [number, number, number, number])[]): Uint8ClampedArray {
	const made = new Uint8ClampedArray(width * height * 4);
	for (const [x, y, w, h] of filled)
		for (let row = y; row < y + h; row++) for (let column = x; column < x + w; column++) made[(row * width + column) * 4 + 3] = 255;
	return made;
}

describe('where pictures differ', () => {
	it('nothing differs in alike pictures, nor a single pixel', () => {
		expect(changedBoxes(mask(400, 560), 400, 560)).toEqual([]);
		expect(changedBoxes(mask(400, 560, [33, 44, 1, 1]), 400, 560)).toEqual([]);
	});
	it('what lies close together is one box, what lies apart is another, from the top down', () => {
		// two words of a line, and a picture at the foot
		const boxes = changedBoxes(mask(400, 560, [40, 400, 80, 60], [40, 80, 30, 10], [80, 80, 30, 10]), 400, 560);
		expect(boxes).toHaveLength(2);
		expect(boxes[0]).toEqual({ x: 0.1, y: 80 / 560, width: 72 / 400, height: 16 / 560 });
		expect(boxes[1]!.y).toBe(400 / 560);
	});
	it('every differing square lies in a box, and no box leaves the picture', () => {
		const side = fc.integer({ min: 0, max: 180 });
		fc.assert(
			fc.property(fc.array(fc.tuple(side, side, fc.integer({ min: 2, max: 20 }), fc.integer({ min: 2, max: 20 })), { maxLength: 8 }), (filled) => {
				const boxes = changedBoxes(mask(200, 200, ...filled), 200, 200);
				for (const { x, y, width, height } of boxes) expect(Math.min(x, y, 1 - x - width, 1 - y - height)).toBeGreaterThanOrEqual(-1e-9);
				for (const [x, y, w, h] of filled) {
					// the middle of what is large enough to fill a square
					if (w < 16 || h < 16) continue;
					const [mx, my] = [(x + w / 2) / 200, (y + h / 2) / 200];
					expect(boxes.some((b) => mx >= b.x && mx <= b.x + b.width && my >= b.y && my <= b.y + b.height)).toBe(true);
				}
			}),
			{ numRuns: 40 }
		);
	});
});
