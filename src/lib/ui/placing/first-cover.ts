// Which cover of a page is its first: that one is fetched at once, the others when they are near.
import { getContext, setContext } from 'svelte';
import { placementsOf, type Article } from '#core/placing/content';
import type { SeenPlacement } from '$lib/server/placing/page-view';

const key = Symbol('the first cover');

/** Tells the placements of a page which of them has its first cover. */
export function tellFirstCover(content: Article, placements: Readonly<Record<string, SeenPlacement>>): void {
	const first = placementsOf(content).find(({ id, form }) => {
		const seen = placements[id];
		return (form === 'cover' || form === 'card') && seen?.state === 'open' && seen.cover !== null;
	});
	setContext(key, first?.id);
}

/** The placement with the first cover of the page, by its id; undefined where there is none, or no page around. */
export const firstCover = (): string | undefined => getContext(key);
