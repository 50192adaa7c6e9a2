// Counting by the COUNTER Code of Practice, release 5, section 7 (from memory), as the model page words it.
import type { Instant } from '../access/hours';

/** Two entries of the same reader, document and kind at most this far apart are a double click: the first is left out. */
export const doubleClickSeconds = 30;

/** A reading ends after this long without a request. */
export const readingGapMinutes = 30;

/** What stands in the ledger so far; issue by issue more kinds join. */
export const entryKinds = ['opened', 'saved', 'turned-away'] as const;
export type EntryKind = (typeof entryKinds)[number];

/** Figures over a time: staff, robots, pre-loads and double clicks are left out of each. */
export interface Figures {
	readonly openings: number;
	readonly saves: number;
	readonly refusals: number;
	/** Distinct readers who opened or saved, counted over the whole time. */
	readonly readers: number;
}

/** A day's openings and saves; `day` is YYYY-MM-DD in the site's zone. */
export interface DayFigures {
	readonly day: string;
	readonly openings: number;
	readonly saves: number;
}

/** Every day from the first to the last, with zeros where nothing happened. Days are YYYY-MM-DD, both included. */
export function everyDay(rows: readonly DayFigures[], first: string, last: string): DayFigures[] {
	const byDay = new Map(rows.map((r) => [r.day, r]));
	const out: DayFigures[] = [];
	for (let t = Date.parse(`${first}T00:00Z`); t <= Date.parse(`${last}T00:00Z`); t += 86_400_000) {
		const day = new Date(t).toISOString().slice(0, 10);
		out.push(byDay.get(day) ?? { day, openings: 0, saves: 0 });
	}
	return out;
}

/**
 * Marks the entries that the double-click rule leaves out: each one that the next of the same reader, document and kind
 * follows within 30 s. `entries` stand in order of time. 0 s, 20 s, 40 s → true, true, false.
 */
export function doubles(entries: readonly { at: Instant; reader: string; document: string; kind: string }[]): boolean[] {
	const next = new Map<string, Instant>();
	const out = new Array<boolean>(entries.length).fill(false);
	for (let i = entries.length - 1; i >= 0; i--) {
		const e = entries[i]!;
		const key = `${e.reader}\n${e.document}\n${e.kind}`;
		const after = next.get(key);
		out[i] = after !== undefined && after - e.at <= doubleClickSeconds * 1000;
		next.set(key, e.at);
	}
	return out;
}
