// Lays what tints the paper over a page, beside its pictures: how it looks is in pages.css.
import { paperPath } from '#core/reading/paper';
import type { PageView } from './pdfjs-private';

/** Lays it over a page whose words have come: it lies and turns as their layer does, under it. */
export function layTint({ div, imageCoordinates, pdfPage }: PageView): void {
	const words = div.querySelector<HTMLElement>('.textLayer');
	if (!words) return;
	let tint = div.querySelector<HTMLElement>('.tint');
	if (!tint) {
		tint = document.createElement('div');
		tint.className = 'tint';
		tint.setAttribute('aria-hidden', 'true');
		words.before(tint);
	}
	tint.style.width = words.style.width;
	tint.style.height = words.style.height;
	if (words.dataset.mainRotation) tint.dataset.mainRotation = words.dataset.mainRotation;
	// of a page that comes as a picture the server tells where pictures stand in it (leaves.ts)
	const told = (pdfPage as { pictures?: readonly number[] } | null)?.pictures;
	tint.style.clipPath = paperPath(imageCoordinates ?? told ?? []);
}
