// The paper on which pages are read: as the file has it, tinted, or dark; pictures stay as they are.

export const papers = ['day', 'straw', 'night'] as const;
export type Paper = (typeof papers)[number];

/** A picture that covers so much of its page is the page: a scan has its paper in it. */
const wholePage = 0.9;

/**
 * The part of a page that is paper, for CSS's `clip-path`: all of it but its pictures. `corners` has six numbers a picture, in shares of the
 * page from its upper left corner: the corner where the picture begins, the one below it, and the one beside it (a picture may stand askew).
 * Example: [] → 'none'; a picture in the upper left quarter leaves a polygon with a hole there.
 */
export function paperPath(corners: ArrayLike<number>): string {
	const points: [number, number][] = [];
	for (let i = 0; i + 5 < corners.length; i += 6) {
		const [x1 = 0, y1 = 0, x2 = 0, y2 = 0, x3 = 0, y3 = 0] = Array.from({ length: 6 }, (_, n) => corners[i + n] ?? 0);
		const area = Math.abs((x2 - x1) * (y3 - y1) - (y2 - y1) * (x3 - x1));
		if (area >= wholePage || area === 0) continue;
		// from the corner of the page to the picture, around it and back: the two ways there cover nothing
		points.push([x1, y1], [x2, y2], [x2 + x3 - x1, y2 + y3 - y1], [x3, y3], [x1, y1], [0, 0]);
	}
	if (!points.length) return 'none';
	const percent = (share: number) => `${Math.round(share * 10_000) / 100}%`;
	const around: [number, number][] = [
		[0, 0],
		[1, 0],
		[1, 1],
		[0, 1],
		[0, 0]
	];
	return `polygon(evenodd, ${[...around, ...points].map(([x, y]) => `${percent(x)} ${percent(y)}`).join(', ')})`;
}
