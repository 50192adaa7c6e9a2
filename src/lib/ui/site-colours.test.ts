// The site's colours are worked out from the two that its owner sets: whatever passes the check when it is set, everything is legible by day and by
// night (WCAG 2.2, 1.4.3 and 1.4.11). Mixed as CSS Color 4 (color-mix in oklab) has it.
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { contrast, leastContrast, nearestPassing, siteGround, siteMain } from '#core/site/colour';
import { nightGround } from '#core/site/look';

const css = readFileSync(new URL('./site.css', import.meta.url), 'utf8');
const base = readFileSync(new URL('./base.css', import.meta.url), 'utf8');

type Rgb = readonly [number, number, number];
const channels = (hex: string): Rgb =>
	[1, 3, 5].map((i) => Number.parseInt((hex.length === 4 ? hex.replace(/[\da-f]/g, '$&$&') : hex).slice(i, i + 2), 16) / 255) as unknown as Rgb;
const linear = (c: number) => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4);
const gamma = (c: number) => (c <= 0.0031308 ? c * 12.92 : 1.055 * Math.max(0, c) ** (1 / 2.4) - 0.055);
/** Björn Ottosson's OKLab, as CSS Color 4 gives its matrices (from memory). */
function lab(hex: string): Rgb {
	const [r, g, b] = channels(hex).map(linear) as unknown as Rgb;
	const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
	const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
	const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
	return [
		0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
		1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
		0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s
	];
}
function hex([L, a, b]: Rgb): string {
	const [l, m, s] = [L + 0.3963377774 * a + 0.2158037573 * b, L - 0.1055613458 * a - 0.0638541728 * b, L - 0.0894841775 * a - 1.291485548 * b].map(
		(c) => c ** 3
	) as unknown as Rgb;
	const rgb = [
		4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s,
		-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s,
		-0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s
	];
	return `#${rgb
		.map((c) =>
			Math.round(Math.min(1, Math.max(0, gamma(c))) * 255)
				.toString(16)
				.padStart(2, '0')
		)
		.join('')}`;
}
const mix = (first: string, share: number, second: string) => {
	const [a, b] = [lab(first), lab(second)];
	return hex([0, 1, 2].map((i) => a[i]! * share + b[i]! * (1 - share)) as unknown as Rgb);
};

/** What a custom property of the site comes to. */
function colourOf(name: string, theme: 'light' | 'dark', own: Readonly<Record<string, string>>): string {
	if (own[name]) return own[name];
	const said = new RegExp(`--${name}: ([^;]+);`).exec(css.slice(css.indexOf('.site {')))?.[1] ?? new RegExp(`--${name}: ([^;]+);`).exec(base)?.[1];
	if (!said) throw new Error(`--${name} is not there`);
	return valueOf(said, theme, own);
}
function split(inside: string): string[] {
	const parts: string[] = [''];
	let depth = 0;
	for (const c of inside) {
		if (c === ',' && !depth) parts.push('');
		else parts[parts.length - 1] += c;
		depth += c === '(' ? 1 : c === ')' ? -1 : 0;
	}
	return parts.map((part) => part.trim());
}
function valueOf(said: string, theme: 'light' | 'dark', own: Readonly<Record<string, string>>): string {
	const text = said.trim();
	if (text.startsWith('#')) return text;
	const [, call = '', inside = ''] = /^([\w-]+)\(([\s\S]*)\)$/.exec(text) ?? [];
	const parts = split(inside);
	if (call === 'var') return colourOf(parts[0]!.slice(2), theme, own);
	if (call === 'light-dark') return valueOf(parts[theme === 'light' ? 0 : 1]!, theme, own);
	// color-mix(in oklab, a [x%], b [y%])
	const [first, second] = parts.slice(1).map((part) => ({ colour: part.replace(/\s+\d+%$/, ''), share: /(\d+)%$/.exec(part)?.[1] }));
	const share = first!.share ? Number(first!.share) / 100 : 1 - Number(second!.share) / 100;
	return mix(valueOf(first!.colour, theme, own), share, valueOf(second!.colour, theme, own));
}

/** Owners' colours that are taken when they are set: dark enough on the ground and under white. */
const owners = [siteGround, '#ffffff', '#f4f1ea'].flatMap((ground) =>
	[siteMain, ...Array.from({ length: 24 }, (_, i) => hex([0.3 + (i % 4) * 0.09, 0.13 * Math.cos(i), 0.13 * Math.sin(i)]))]
		.map((main) => nearestPassing(main, [ground, '#ffffff']))
		.map((main) => ({ main, ground }))
);

describe('colours of the site, for whatever owner', () => {
	it('mixes as the browsers do: half black, half white in OKLab is #636363', () => expect(mix('#000000', 0.5, '#ffffff')).toBe('#636363'));
	for (const theme of ['light', 'dark'] as const)
		for (const [least, pairs] of [
			[
				leastContrast,
				[
					['ink', ['sheet', 'wash', 'stone']],
					['link', ['sheet']],
					['soft-on-wash', ['wash']],
					['on-band', ['band']],
					['soft-on-band', ['band']],
					['on-verdigris', ['verdigris']],
					['ink', ['found']],
					// a pale band, and a deep one, which has the colours of the night whichever the page has
					['ink', theme === 'dark' ? ['band'] : []],
					['ink-soft', theme === 'dark' ? ['band'] : []]
				]
			],
			[
				3,
				[
					['ledge', ['sheet', 'wash']],
					['edge', ['sheet', 'wash']],
					['verdigris', theme === 'dark' ? ['wash', 'band'] : ['wash']]
				]
			]
		] as const)
			for (const [front, backs] of pairs)
				for (const back of backs)
					it(`${theme}: ${front} on ${back} at least ${least}:1`, () => {
						const weak = owners.flatMap(({ main, ground }) => {
							const own = { 'own-main': main, 'own-night': nearestPassing(main, [nightGround]), 'own-ground': ground };
							const ratio = contrast(colourOf(front, theme, own), colourOf(back, theme, own));
							return ratio < least ? [`${main} on ${ground}: ${ratio.toFixed(2)}`] : [];
						});
						expect(weak).toEqual([]);
					});
});
