// WCAG 2.2, 1.4.3 (text 4.5:1) and 1.4.11 (edges that matter 3:1), from the very colour tokens, in both themes.
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

const css = readFileSync(new URL('./base.css', import.meta.url), 'utf8');
const tokens = new Map([...css.matchAll(/--([a-z-]+): light-dark\((#[0-9a-f]{6}), (#[0-9a-f]{6})\)/g)].map((m) => [m[1]!, { light: m[2]!, dark: m[3]! }]));

/** Relative luminance and contrast as WCAG 2.2 defines them. */
function luminance(hex: string): number {
	const [r, g, b] = [1, 3, 5].map((i) => {
		const c = Number.parseInt(hex.slice(i, i + 2), 16) / 255;
		return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
	});
	return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
}
function contrast(a: string, b: string): number {
	const [x, y] = [luminance(a), luminance(b)].sort((p, q) => q - p);
	return (x! + 0.05) / (y! + 0.05);
}

const text: [string, string[]][] = [
	['ink', ['ground', 'sheet', 'sunk', 'brass-wash', 'verdigris-wash', 'reading-ground']],
	['ink-soft', ['ground', 'sheet', 'sunk', 'brass-wash']],
	['verdigris', ['ground', 'sheet', 'sunk', 'verdigris-wash']],
	['on-verdigris', ['verdigris']],
	['brass', ['sheet', 'ground', 'brass-wash']],
	['brick', ['sheet', 'ground', 'brick-wash']],
	['on-dark', ['verdigris-deep']]
];
const edges: [string, string[]][] = [
	['edge', ['ground', 'sheet']],
	['verdigris', ['sheet', 'ground', 'brass-wash']],
	['brick', ['brick-wash']]
];

describe.each(['light', 'dark'] as const)('in the %s theme', (theme) => {
	const colourOf = (name: string) => tokens.get(name)![theme];
	for (const [least, pairs, what] of [
		[4.5, text, 'text'],
		[3, edges, 'edge']
	] as const) {
		for (const [front, backs] of pairs)
			for (const back of backs)
				it(`${what} ${front} on ${back} has at least ${least}:1`, () => expect(contrast(colourOf(front), colourOf(back))).toBeGreaterThanOrEqual(least));
	}
});

it('the measure is the one of the standard: black on white is 21:1, #777777 on white just under 4.5:1', () => {
	expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5);
	expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2);
});
