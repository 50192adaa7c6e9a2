import fc from 'fast-check';
import { expect, it } from 'vitest';
import { contrast, leastContrast, luminance, nearestPassing } from './colour';

// WCAG 2.2: black on white is 21:1, a colour on itself 1:1. #767676 is the lightest grey that passes on white (W3C, Understanding 1.4.3, from memory).
it('contrast is that of WCAG 2.2', () => {
	expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5);
	expect(contrast('#1f5f58', '#1f5f58')).toBe(1);
	expect(contrast('#767676', '#ffffff')).toBeGreaterThanOrEqual(4.5);
	expect(contrast('#777777', '#ffffff')).toBeLessThan(4.5);
	expect(luminance('#ffffff')).toBeCloseTo(1, 6);
});
it('the nearest colour that passes does pass, and no step before it does', () => {
	const hex = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`);
	fc.assert(
		fc.property(hex, (colour) => {
			const passes = nearestPassing(colour, ['#ffffff']);
			expect(contrast(passes, '#ffffff')).toBeGreaterThanOrEqual(leastContrast);
			if (contrast(colour, '#ffffff') >= leastContrast) expect(passes).toBe(colour);
		})
	);
	expect(nearestPassing('#777777', ['#ffffff'])).toBe('#767676');
});
