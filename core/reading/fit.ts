// How large pages are shown.
import { boundZoom, type Fit } from './settings';

export interface Box {
	readonly width: number;
	readonly height: number;
}

/** CSS px to the PDF point (1/72 in) at 100 %: 96 px to the inch (CSS Values and Units 3, 6.2). */
export const pxPerPoint = 96 / 72;

/**
 * Scale at which pages are shown, 1 being the paper's size, bounded to 10 to 600 %. `page` is one page at 100 %, `room` what there is for
 * it, both in CSS px; with `pairs` two such pages stand side by side. A number is per cent.
 *
 * 'comfortable' is a size to read at: the whole page where its words are large enough so, else the paper's own size (10 pt are 13 px then),
 * as far as the width allows: on a phone it is the full width.
 */
export function scaleFor(fit: Fit | number, page: Box, room: Box, pairs = false): number {
	const byWidth = room.width / (page.width * (pairs ? 2 : 1));
	const byHeight = room.height / page.height;
	const whole = Math.min(byWidth, byHeight);
	const scales: Record<Fit, number> = { comfortable: Math.min(byWidth, Math.max(whole, 1)), page: whole, width: byWidth, height: byHeight, paper: 1 };
	const scale = typeof fit === 'number' ? fit / 100 : scales[fit];
	return boundZoom((Number.isFinite(scale) ? scale : 1) * 100) / 100;
}

/** The size of a page, from runs of equal sizes in the order of the pages; the last run goes on. */
export function sizeOfPage(page: number, runs: readonly (Box & { readonly pages: number })[]): Box {
	let before = 0;
	for (const run of runs) {
		before += run.pages;
		if (page <= before) return { width: run.width, height: run.height };
	}
	const last = runs.at(-1);
	return last ? { width: last.width, height: last.height } : { width: 595, height: 842 };
}
