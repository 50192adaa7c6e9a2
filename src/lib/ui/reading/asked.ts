// What the viewer is asked for and what it tells.
import type { Fit, Way } from '#core/reading/settings';
import type { RangeEvents } from './file-ranges';
import type { FindState } from './finder';
import type { LeavesOf } from './leaves';

export interface ViewerEvents extends RangeEvents {
	page(page: number): void;
	scale(percent: number): void;
	/** A page has been drawn; with `trouble` it could not be. */
	drawn(page: number, trouble: boolean): void;
	/** Pages that are seen: at least half of them, or they fill half the window. */
	seen(shares: readonly { page: number; ofPage: number; ofWindow: number }[]): void;
	find(state: FindState): void;
	/** A link inside the document led away from a place. */
	followed(from: Place): void;
	/** Fields of the document hold what was not saved, or do not any more. */
	written(unsaved: boolean): void;
}

export interface Place {
	readonly page: number;
	readonly left: number;
	readonly top: number;
}

export interface Asked {
	readonly container: HTMLDivElement;
	readonly file: string | null;
	/** Steps of the file that are fetched at once, because the page to begin with takes them. */
	readonly opening: readonly number[];
	readonly leaves: LeavesOf;
	/** Ground around a page, CSS px: to both sides, and above and below. */
	readonly ground: () => { x: number; y: number };
	/** Whether the document is written from right to left, as far as its language tells. */
	readonly fromRight: boolean;
	readonly pageName: (page: number) => string;
	/** Says where a link inside leads. */
	readonly linkName: (page: number) => string;
	/** Pages on which the server says that any of the words stand. */
	readonly pagesWith: (words: readonly string[]) => Promise<readonly number[]>;
}

/** How a room begins. */
export interface Start {
	readonly way: Way;
	readonly cover: boolean;
	readonly fit: Fit | number;
	readonly page: number;
}
