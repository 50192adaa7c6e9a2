// The rows chosen in the documents room, by mouse or keyboard, for changes to many at once.

export const chosenRows = $state<{ slugs: string[] }>({ slugs: [] });
let anchor: string | null = null;

/** Whether a row is chosen. */
export const isChosen = (slug: string): boolean => chosenRows.slugs.includes(slug);

/** Chooses a row or lets it go; with `range`, all rows from the last one chosen to this. */
export function choose(slug: string, order: readonly string[], range = false): void {
	const from = anchor === null ? -1 : order.indexOf(anchor);
	const to = order.indexOf(slug);
	if (range && from >= 0 && to >= 0) {
		const between = order.slice(Math.min(from, to), Math.max(from, to) + 1);
		chosenRows.slugs = [...new Set([...chosenRows.slugs, ...between])];
	} else {
		chosenRows.slugs = isChosen(slug) ? chosenRows.slugs.filter((s) => s !== slug) : [...chosenRows.slugs, slug];
		anchor = slug;
	}
}

/** Chooses all of these, or lets all go where they were chosen already. */
export function chooseAll(slugs: readonly string[]): void {
	const all = slugs.every(isChosen);
	chosenRows.slugs = all ? chosenRows.slugs.filter((s) => !slugs.includes(s)) : [...new Set([...chosenRows.slugs, ...slugs])];
}

/** Chooses none. */
export function chooseNone(): void {
	chosenRows.slugs = [];
	anchor = null;
}
