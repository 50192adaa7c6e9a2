// Colours of the site, and whether words can be read in them. WCAG 2.2: relative luminance and contrast ratio (section 3, definitions).

/** Least contrast of text (WCAG 2.2, 1.4.3 at level AA). */
export const leastContrast = 4.5;
/** What the site's words stand in and on by day, unless it sets a background (theme.css). */
export const siteInk = '#1b2a29';
export const siteGround = '#fffdf8';
/** Colour of its links and buttons, unless it sets one. */
export const siteMain = '#1c6a61';

const channels = (colour: string): number[] => [1, 3, 5].map((i) => Number.parseInt(colour.slice(i, i + 2), 16));

/** WCAG 2.2, relative luminance of '#rrggbb': 0 for black, 1 for white. */
export function luminance(colour: string): number {
	const [r, g, b] = channels(colour).map((c) => {
		const s = c / 255;
		return s <= 0.04045 ? s / 12.92 : ((s + 0.055) / 1.055) ** 2.4;
	}) as [number, number, number];
	return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** WCAG 2.2, contrast ratio of two colours: 1 to 21. */
export function contrast(a: string, b: string): number {
	const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
	return (light + 0.05) / (dark + 0.05);
}

/** The colour nearest to one, on its way to black or to white, that has enough contrast to all others. */
export function nearestPassing(colour: string, others: readonly string[], least = leastContrast): string {
	const from = channels(colour);
	for (let step = 0; step <= 255; step++)
		for (const to of [0, 255]) {
			const mixed = `#${from
				.map((c) =>
					Math.round(c + ((to - c) * step) / 255)
						.toString(16)
						.padStart(2, '0')
				)
				.join('')}`;
			if (others.every((other) => contrast(mixed, other) >= least)) return mixed;
		}
	return others.every((other) => luminance(other) > 0.18) ? '#000000' : '#ffffff';
}
