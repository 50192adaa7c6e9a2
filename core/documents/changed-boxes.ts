// Where two pictures of a page differ, as boxes to be drawn over them.

/** In shares of the picture, from its upper left corner. */
export interface ChangedBox {
	readonly x: number;
	readonly y: number;
	readonly width: number;
	readonly height: number;
}

/** Side of the squares in which differences are gathered, px; those with fewer differing pixels than that are grain. */
const cell = 8;
const grain = 2;
/** Squares with so many between them belong together: the letters of a line, the lines of a paragraph. */
const gap = 2;

/**
 * Gathers what differs into boxes, from the top down. `mask` has four bytes a pixel (red, green, blue, alpha), and alpha over 0 where the pictures
 * differ; `width` and `height` are in px. Nothing differs: none.
 */
export function changedBoxes(mask: ArrayLike<number>, width: number, height: number): ChangedBox[] {
	const [across, down] = [Math.ceil(width / cell), Math.ceil(height / cell)];
	const counts = new Uint16Array(across * down);
	for (let y = 0; y < height; y++)
		for (let x = 0; x < width; x++) if ((mask[(y * width + x) * 4 + 3] ?? 0) > 0) counts[Math.floor(y / cell) * across + Math.floor(x / cell)]!++;
	const open = new Set<number>();
	counts.forEach((count, n) => {
		if (count >= grain) open.add(n);
	});
	const boxes: ChangedBox[] = [];
	for (const start of open) {
		open.delete(start);
		const waiting = [start];
		let [left, right, top, bottom] = [across, 0, down, 0];
		for (let at = waiting.pop(); at !== undefined; at = waiting.pop()) {
			const [x, y] = [at % across, Math.floor(at / across)];
			[left, right, top, bottom] = [Math.min(left, x), Math.max(right, x), Math.min(top, y), Math.max(bottom, y)];
			for (let dy = -gap; dy <= gap; dy++)
				for (let dx = -gap; dx <= gap; dx++) {
					const near = (y + dy) * across + x + dx;
					if (x + dx >= 0 && x + dx < across && open.delete(near)) waiting.push(near);
				}
		}
		boxes.push({
			x: (left * cell) / width,
			y: (top * cell) / height,
			width: (Math.min(width, (right + 1) * cell) - left * cell) / width,
			height: (Math.min(height, (bottom + 1) * cell) - top * cell) / height
		});
	}
	return boxes.sort((a, b) => a.y - b.y || a.x - b.x);
}
