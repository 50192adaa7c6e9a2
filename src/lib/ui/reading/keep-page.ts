// The page in view stays in view when the pages are laid out anew: by another way of reading, turned, or at another size.

/** How much of a page is above the window's upper edge and left of its left one, as shares of the page; nothing where it begins within. */
export interface Part {
	readonly x: number;
	readonly y: number;
}

export function partOf(container: HTMLElement, page: HTMLElement | null): Part {
	if (!page) return { x: 0, y: 0 };
	const [window, leaf] = [container.getBoundingClientRect(), page.getBoundingClientRect()];
	const share = (over: number, length: number) => (length > 0 ? Math.min(0.9, Math.max(0, over / length)) : 0);
	return { x: share(window.left - leaf.left, leaf.width), y: share(window.top - leaf.top, leaf.height) };
}

/** Scrolls so that a page stands as `partOf` found it; one that began within the window, at its upper left. */
export function showPart(container: HTMLElement, page: HTMLElement | null, part: Part): void {
	if (!page) return;
	const [window, leaf] = [container.getBoundingClientRect(), page.getBoundingClientRect()];
	const wider = leaf.width > window.width;
	container.scrollTop += leaf.top - window.top + part.y * leaf.height - (part.y ? 0 : Math.max(0, Math.min(12, (window.height - leaf.height) / 2)));
	// one that fits stands in the middle
	container.scrollLeft += wider ? leaf.left - window.left + part.x * leaf.width : leaf.left + leaf.width / 2 - window.left - window.width / 2;
}
