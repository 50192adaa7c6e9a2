// Where pictures stand on a page, read by pdf.js in a helper process: the paper of a page that comes as a picture is tinted beside them.
import { withPdf } from './library';

type Matrix = readonly [number, number, number, number, number, number];

/** One transformation after another (ISO 32000-1, 8.3.4). */
const times = ([a, b, c, d, e, f]: Matrix, [g, h, i, j, k, l]: Matrix): Matrix => [
	a * g + c * h,
	b * g + d * h,
	a * i + c * j,
	b * i + d * j,
	a * k + c * l + e,
	b * k + d * l + f
];

const isMatrix = (given: unknown): given is Matrix => Array.isArray(given) && given.length === 6 && given.every((n) => typeof n === 'number');

/** Most pictures of a page that are told: more are tiles or letters. */
const most = 200;

/**
 * The pictures of a page of the file at a path, six numbers each, in shares of the page as shown from its upper left corner: where the picture
 * begins, the corner below that, and the one beside it (core/reading/paper.ts). None where it is too large a file to be read so. Masks, which
 * are ink in the shape of a picture, are none.
 */
export async function imagesOn(path: string, number: number): Promise<number[]> {
	const corners = await withPdf(path, async (document, { OPS }) => {
		const page = await document.getPage(number);
		const shown = page.getViewport({ scale: 1 });
		const { fnArray, argsArray } = await page.getOperatorList();
		const found: number[] = [];
		const kept: Matrix[] = [];
		let current: Matrix = isMatrix(shown.transform) ? shown.transform : [1, 0, 0, 1, 0, 0];
		const stand = (matrix: Matrix) => {
			// a picture fills the unit square, its first line at the top (ISO 32000-1, 8.9.5.1)
			for (const [x, y] of [
				[0, 1],
				[0, 0],
				[1, 1]
			] as const)
				found.push(...inShares(matrix[0] * x + matrix[2] * y + matrix[4], matrix[1] * x + matrix[3] * y + matrix[5]));
		};
		const inShares = (x: number, y: number) => [x / shown.width, y / shown.height].map((share) => Math.round(share * 10_000) / 10_000);
		fnArray.forEach((operator, n) => {
			const args = argsArray[n] as readonly unknown[] | null;
			if (operator === OPS.save) kept.push(current);
			else if (operator === OPS.restore || operator === OPS.paintFormXObjectEnd) current = kept.pop() ?? current;
			else if (operator === OPS.transform && isMatrix(args)) current = times(current, args);
			else if (operator === OPS.paintFormXObjectBegin) {
				kept.push(current);
				if (isMatrix(args?.[0])) current = times(current, args[0]);
			} else if (found.length >= most * 6) return;
			else if (operator === OPS.paintImageXObject || operator === OPS.paintInlineImageXObject) stand(current);
			else if (operator === OPS.paintImageXObjectRepeat) {
				// the same one several times: its scale, and where each begins
				const [, across, down, places] = args as readonly [string, number, number, ArrayLike<number>];
				for (let i = 0; i + 1 < places.length; i += 2) stand(times(current, [across, 0, 0, down, places[i] ?? 0, places[i + 1] ?? 0]));
			} else if (operator === OPS.paintInlineImageXObjectGroup)
				for (const { transform } of args?.[1] as readonly { transform: unknown }[]) if (isMatrix(transform)) stand(times(current, transform));
		});
		return found;
	});
	return corners ?? [];
}
