// A pocket page: a few documents and links for who stands before a noticeboard with a phone, each on show within its hours.
import { Type, type Static } from '@sinclair/typebox';
import { spanOf, within, type Instant } from '../access/hours';
import { slugPattern } from '../documents/address';
import { linkPattern } from '../text/link';

const Bound = Type.Union([Type.String({ format: 'date' }), Type.String({ format: 'date-time' })]);
/** An entry of a pocket page: a document or a plain link, on show within its hours unless it rests. */
export const PocketEntry = Type.Object(
	{
		id: Type.Optional(Type.String({ pattern: '^[A-Za-z0-9_-]{6,40}$' })),
		document: Type.Optional(Type.String({ pattern: slugPattern, maxLength: 80 })),
		url: Type.Optional(Type.String({ pattern: linkPattern, maxLength: 2000 })),
		words: Type.Optional(Type.String({ maxLength: 120 })),
		/** What is said of it below its words. */
		about: Type.Optional(Type.String({ maxLength: 300 })),
		/** Name of an icon; a document without one shows its cover. */
		icon: Type.Optional(Type.String({ pattern: '^[a-z0-9]+(?:-[a-z0-9]+)*$', maxLength: 60 })),
		from: Type.Optional(Bound),
		until: Type.Optional(Bound),
		/** Kept but unseen. */
		resting: Type.Optional(Type.Boolean())
	},
	{ additionalProperties: false }
);
export type PocketEntry = Static<typeof PocketEntry>;
export const Pocket = Type.Object(
	{ lead: Type.Optional(Type.String({ maxLength: 300 })), entries: Type.Array(PocketEntry, { maxItems: 100 }) },
	{ additionalProperties: false }
);
export type Pocket = Static<typeof Pocket>;

/** What is wrong with an entry of a pocket page, or null. */
export function entryTrouble(entry: PocketEntry): string | null {
	if (entry.document && entry.url) return 'an entry is a document or a link, not both';
	if (!entry.document && !entry.url) return 'an entry needs a document or an address';
	if (entry.url && !entry.words?.trim()) return 'a link needs words';
	const hours = spanOf(entry.from ?? null, entry.until ?? null, 'UTC');
	return hours.from !== null && hours.until !== null && hours.from >= hours.until ? 'its time on show ends before it begins' : null;
}

/** Whether an entry is on show at an instant. */
export function onShow(entry: PocketEntry, at: Instant, zone: string): boolean {
	return !entry.resting && within(spanOf(entry.from ?? null, entry.until ?? null, zone), at) === 'in';
}

/** The next instant after `at` at which an entry comes on show or goes; Infinity where none does. */
export function nextShow({ entries }: Pocket, at: Instant, zone: string): Instant {
	const bounds = entries.flatMap((entry) => Object.values(spanOf(entry.from ?? null, entry.until ?? null, zone)) as (Instant | null)[]);
	return Math.min(Infinity, ...bounds.filter((bound) => bound !== null && bound > at).map(Number));
}

/** Height in CSS px of what stands above the entries of a pocket page, and of one entry, at 360 px wide; and of a usual phone's window. */
const pocketHeights = { above: 150, entry: 92, screen: 660 };

/** How many phone screens a list of entries takes; over two it is too long to be read standing (common practice, no source). */
export function phoneScreens(entries: number): number {
	return (pocketHeights.above + entries * pocketHeights.entry) / pocketHeights.screen;
}

/** The entries of a pocket page, each with an id of its own; all of them new with `anew`. */
export function settledPocket(content: Pocket, freshId: () => string, anew = false): Pocket {
	const seen = new Set<string>();
	return {
		...content,
		entries: content.entries.map((entry) => {
			const id = !anew && entry.id && !seen.has(entry.id) ? entry.id : freshId();
			seen.add(id);
			return { ...entry, id };
		})
	};
}
