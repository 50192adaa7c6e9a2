// Names of paper sizes. ISO 216 for A and B; US sizes by common practice (no source). Sizes are in PDF points (1/72 in).

export const pointsPerMm = 72 / 25.4;

/** ISO 216 sizes in mm: each is the one before halved across its long side, rounded down to the millimetre. */
const iso: readonly (readonly [string, number, number])[] = [...halvings('A', 841, 1189, 11), ...halvings('B', 1000, 1414, 11)];

const us: readonly (readonly [string, number, number])[] = [
	['Letter', 612, 792],
	['Legal', 612, 1008],
	['Tabloid', 792, 1224]
];

function halvings(series: string, short: number, long: number, count: number): [string, number, number][] {
	const out: [string, number, number][] = [];
	for (let n = 0; n < count; n++) {
		out.push([`${series}${n}`, short, long]);
		[short, long] = [Math.floor(long / 2), short];
	}
	return out;
}

/** A page's size in points, as its crop box shows it upright. */
export interface PageSize {
	readonly width: number;
	readonly height: number;
}

/** Tolerance in points: ISO 216 allows 1.5 mm up to 150 mm, 2 mm up to 600 mm, 3 mm above. */
function tolerance(mm: number): number {
	return (mm <= 150 ? 1.5 : mm <= 600 ? 2 : 3) * pointsPerMm;
}

/** 'A4', 'A3 landscape', 'Letter', or null where no name fits. */
export function paperName({ width, height }: PageSize): string | null {
	const [short, long] = width <= height ? [width, height] : [height, width];
	const turned = width > height ? ' landscape' : '';
	let best: { name: string; off: number } | null = null;
	for (const [name, a, b] of iso) {
		const [da, db] = [Math.abs(short - a * pointsPerMm), Math.abs(long - b * pointsPerMm)];
		if (da <= tolerance(a) && db <= tolerance(b) && (!best || da + db < best.off)) best = { name, off: da + db };
	}
	for (const [name, a, b] of us) {
		const [da, db] = [Math.abs(short - a), Math.abs(long - b)];
		if (da <= 3 && db <= 3 && (!best || da + db < best.off)) best = { name, off: da + db };
	}
	return best ? best.name + turned : null;
}

/** 'A4', 'A4 and A3 landscape', '200 × 150 mm', 'several sizes': the sizes of a document's pages, most frequent first. */
export function paperWords(sizes: readonly (PageSize & { readonly pages: number })[]): string {
	const byName = new Map<string, number>();
	for (const size of sizes) {
		const name = paperName(size) ?? `${Math.round(size.width / pointsPerMm)} × ${Math.round(size.height / pointsPerMm)} mm`;
		byName.set(name, (byName.get(name) ?? 0) + size.pages);
	}
	const names = [...byName].sort((a, b) => b[1] - a[1]).map(([name]) => name);
	if (names.length > 2) return `mostly ${names[0]}, ${names.length} sizes`;
	return names.join(' and ');
}
