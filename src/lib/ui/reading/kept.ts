// What this browser keeps of its reader: the way of reading they chose, and the page at which they left each document. A browser that keeps
// nothing, or in a frame of another website may not, reads all the same.
import { readersChoice, type ReadersChoice } from '#core/reading/settings';

const choiceKey = 'ianua-reading';
const placeKey = 'ianua-places';
/** Documents of which the page is kept; the longest left go first. */
const mostPlaces = 100;

function read(key: string): unknown {
	try {
		return JSON.parse(localStorage.getItem(key) ?? 'null');
	} catch {
		return null;
	}
}

function keep(key: string, value: unknown): void {
	try {
		localStorage.setItem(key, JSON.stringify(value));
	} catch {
		/* nothing is kept then */
	}
}

/** How this reader last chose to read, kept in the browser. */
export const keptChoice = (): ReadersChoice => readersChoice(read(choiceKey));
/** Keeps what of it was chosen now. */
export const keepChoice = (choice: ReadersChoice): void => keep(choiceKey, { ...keptChoice(), ...choice });

const places = () => (read(placeKey) as Record<string, number> | null) ?? {};
/** The page at which this browser left a document, counted from 1. */
export const keptPlace = (slug: string): number | undefined => places()[slug];
/** Keeps the page a reader has come to. */
export function keepPlace(slug: string, page: number): void {
	const { [slug]: _before, ...others } = places();
	keep(placeKey, Object.fromEntries([...Object.entries(others).slice(1 - mostPlaces), [slug, page]]));
}
