// Counting by the COUNTER Code of Practice, release 5, section 7 (from memory), as the model page words it. All of it runs over
// entries in order of time and holds on only to what the last 30 s, or the day's readers, need.
import type { RefusedCode } from '../access/decide';
import type { Instant } from '../access/hours';

/** Two entries of the same reader, document and kind at most this far apart are a double click: the first is left out. */
export const doubleClickSeconds = 30;

/** A reading ends after this long without a request. */
export const readingGapMinutes = 30;

/**
 * The rule of behaviour: somebody without a name (neither member nor key) with more openings and saves than this in one clock hour is
 * taken for a robot, for that whole day. Our own figure, no source: a person seldom opens one document a minute for an hour.
 */
export const robotOpeningsAnHour = 60;

/** What stands in the ledger. `shown` and `looked` (the document page) are counted, not listed. */
export const entryKinds = [
	'shown',
	'looked',
	'opened',
	'read',
	'saved',
	'printed',
	'turned-away',
	'knocked',
	'key-used',
	'reminded',
	'news',
	'receipt'
] as const;
export type EntryKind = (typeof entryKinds)[number];

/** Kinds of device, as far as a browser's name for itself tells. */
export const devices = ['computer', 'tablet', 'phone', 'other'] as const;
export type Device = (typeof devices)[number];

/** The kind of device by the User-Agent header (common practice, no source). */
export function deviceOf(agent: string): Device {
	if (/ipad|tablet|kindle|silk|playbook|android(?!.*mobile)/i.test(agent)) return 'tablet';
	if (/iphone|ipod|mobile|windows phone/i.test(agent)) return 'phone';
	return /windows nt|macintosh|x11|cros|linux/i.test(agent) ? 'computer' : 'other';
}

/** An entry of one document, as counting needs it. */
export interface Countable {
	readonly at: Instant;
	readonly kind: EntryKind;
	readonly reader: string;
	readonly staff: boolean;
	readonly robot: boolean;
	readonly preload: boolean;
	/** Of the placement that came into view, so that two of them on one page are no double click. */
	readonly placement: string | null;
}

/** Whether an entry is of a kind to which the double-click rule applies: what is told of reading comes every few seconds. */
const clicks = (kind: EntryKind): boolean => kind !== 'read';

/** Entries within which doubles are told: of one reader and kind. */
const keyOf = (e: Countable) => `${e.kind}\n${e.reader}\n${e.kind === 'shown' ? e.placement : ''}`;

/**
 * The entries of one document, in order of time, each with whether the double-click rule leaves it out: one that the next of the same
 * reader and kind follows within 30 s. Given on in their order; holds at most those of the last 30 s. 0 s, 20 s, 40 s → true, true, false.
 */
export function* doubles<E extends Countable>(entries: Iterable<E>): Generator<{ entry: E; double: boolean }> {
	const waiting: { entry: E; double: boolean }[] = [];
	const last = new Map<string, { entry: E; double: boolean }>();
	let head = 0;
	for (const entry of entries) {
		while (head < waiting.length && entry.at - waiting[head]!.entry.at > doubleClickSeconds * 1000) {
			const done = waiting[head++]!;
			const key = keyOf(done.entry);
			if (last.get(key) === done) last.delete(key);
			yield done;
		}
		if (head > 1000) head = (waiting.splice(0, head), 0);
		const item = { entry, double: false };
		waiting.push(item);
		if (!clicks(entry.kind)) continue;
		const key = keyOf(entry);
		const before = last.get(key);
		if (before) before.double = true;
		last.set(key, item);
	}
	for (; head < waiting.length; head++) yield waiting[head]!;
}

/** The entries that count: neither staff's nor a robot's nor a pre-load, and no double clicks. `robots` are readers that behave like one. */
export function* counted<E extends Countable>(entries: Iterable<E>, robots: ReadonlySet<string> = new Set()): Generator<E> {
	for (const { entry, double } of doubles(peopleOnly(entries, robots))) if (!double) yield entry;
}

function* peopleOnly<E extends Countable>(entries: Iterable<E>, robots: ReadonlySet<string>): Generator<E> {
	for (const e of entries) if (!e.staff && !e.robot && !e.preload && !robots.has(e.reader)) yield e;
}

/** By which rule an entry is left out of the figures; the first that fits. */
export const leftOutRules = ['staff', 'robot', 'preload', 'behaviour', 'double'] as const;
export type LeftOut = (typeof leftOutRules)[number];

/** An entry as the sums of a day need it. */
export interface Summable extends Countable {
	readonly edition: string;
	readonly person: string | null;
	readonly key: string | null;
	readonly device: Device;
	/** Behind a door that is not for everyone (COUNTER's controlled access). */
	readonly controlled: boolean;
	readonly source: Source;
	/** Of an entry of reading: seconds for which each page was attended to. */
	readonly attention: readonly { readonly page: number; readonly seconds: number }[] | null;
	/** Why somebody was turned away. */
	readonly reason: RefusedCode | null;
}

/** Where somebody came from. */
export interface Source {
	readonly kind: 'page' | 'desk' | 'outside' | 'direct' | 'news';
	readonly page: string | null;
	readonly outside: string | null;
}

export interface SourceSum extends Source {
	readonly placement: string | null;
	readonly key: string | null;
	shown: number;
	looks: number;
	openings: number;
	saves: number;
}

/** What one reader did with one edition on one day. */
export interface ReaderSum {
	readonly reader: string;
	readonly edition: string;
	person: string | null;
	key: string | null;
	openings: number;
	saves: number;
	printed: number;
	seconds: number;
	firstAt: Instant;
	lastAt: Instant;
	/** Seconds by page. */
	readonly pages: Map<number, number>;
}

/** How often one reader was turned away on one day for a reason, coming from a page or not. */
export interface RefusedSum {
	readonly reason: RefusedCode | null;
	readonly page: string | null;
	readonly reader: string;
	readonly person: string | null;
	readonly key: string | null;
	times: number;
	lastAt: Instant;
}

/** One document's day. */
export interface DaySum {
	openings: number;
	saves: number;
	printed: number;
	refusals: number;
	knocks: number;
	keysUsed: number;
	shown: number;
	looks: number;
	/** Seconds attended to, all pages and readers. */
	seconds: number;
	/** Of openings and saves, one for each reader and clock hour. */
	uniqueRequests: number;
	/** The same, looks counted too. */
	uniqueInvestigations: number;
	/** Of openings and saves, those behind a door that is not for everyone. */
	controlled: number;
	/** Of looks, the same. */
	controlledLooks: number;
	/** Of unique requests and investigations, the hours of a reader in which one of them was behind such a door. */
	controlledUniqueRequests: number;
	controlledUniqueInvestigations: number;
	/** Openings and saves by staff, every one of them: they count in nothing else. */
	staffOpenings: number;
	staffSaves: number;
	/** Openings and saves by clock hour, 24 of them. */
	readonly hours: number[];
	/** Openings and saves by device, in the order of `devices`. */
	readonly devices: number[];
	readonly sources: SourceSum[];
	readonly readers: ReaderSum[];
	readonly refused: RefusedSum[];
}

/**
 * Sums the entries of one document on one day, in order of time. `entries` may go on up to 30 s past the day, so that a double click
 * over midnight is seen; what is at `until` or later is not summed. `hourOf` gives the clock hour, 0 to 23.
 */
export function sumDay(entries: Iterable<Summable>, until: Instant, hourOf: (at: Instant) => number, robots?: ReadonlySet<string>): DaySum {
	const sum: DaySum = {
		openings: 0,
		saves: 0,
		printed: 0,
		refusals: 0,
		knocks: 0,
		keysUsed: 0,
		shown: 0,
		looks: 0,
		seconds: 0,
		uniqueRequests: 0,
		uniqueInvestigations: 0,
		controlled: 0,
		controlledLooks: 0,
		controlledUniqueRequests: 0,
		controlledUniqueInvestigations: 0,
		staffOpenings: 0,
		staffSaves: 0,
		hours: new Array<number>(24).fill(0),
		devices: devices.map(() => 0),
		sources: [],
		readers: [],
		refused: []
	};
	const sources = new Map<string, SourceSum>();
	const readers = new Map<string, ReaderSum>();
	const refused = new Map<string, RefusedSum>();
	const sessions = () => ({ requested: new Set<string>(), investigated: new Set<string>() });
	const [all, controlled] = [sessions(), sessions()];
	const addSession = (e: Summable, hour: number, which: 'requested' | 'investigated') => {
		const session = `${hour}\n${e.reader}`;
		all[which].add(session);
		if (e.controlled) controlled[which].add(session);
	};

	const sourceOf = (e: Summable): SourceSum => {
		const { source, placement, key } = e;
		const name = `${source.kind}\n${source.page ?? ''}\n${placement ?? ''}\n${source.outside ?? ''}\n${key ?? ''}`;
		let known = sources.get(name);
		if (!known) {
			known = { ...source, placement, key, shown: 0, looks: 0, openings: 0, saves: 0 };
			sources.set(name, known);
			sum.sources.push(known);
		}
		return known;
	};
	const readerOf = (e: Summable): ReaderSum => {
		const name = `${e.reader}\n${e.edition}`;
		let known = readers.get(name);
		if (!known) {
			known = {
				reader: e.reader,
				edition: e.edition,
				person: e.person,
				key: e.key,
				openings: 0,
				saves: 0,
				printed: 0,
				seconds: 0,
				firstAt: e.at,
				lastAt: e.at,
				pages: new Map()
			};
			readers.set(name, known);
			sum.readers.push(known);
		}
		known.person ??= e.person;
		known.key ??= e.key;
		known.lastAt = e.at;
		return known;
	};

	const turnAway = ({ reason, source: { page }, reader, person, key, at }: Summable) => {
		const name = `${reason}\n${page}\n${reader}\n${key}`;
		const known = refused.get(name);
		if (known) {
			known.times++;
			known.lastAt = at;
			return;
		}
		const one = { reason, page, reader, person, key, times: 1, lastAt: at };
		refused.set(name, one);
		sum.refused.push(one);
	};

	const staffApart = function* () {
		for (const e of entries) {
			if (e.staff && !e.robot && !e.preload && e.at < until) {
				if (e.kind === 'opened') sum.staffOpenings++;
				if (e.kind === 'saved') sum.staffSaves++;
			}
			yield e;
		}
	};
	for (const e of counted(staffApart(), robots)) {
		if (e.at >= until) continue;
		switch (e.kind) {
			case 'opened':
			case 'saved': {
				const hour = hourOf(e.at);
				const which = e.kind === 'opened' ? 'openings' : 'saves';
				sum[which]++;
				sum.hours[hour]!++;
				sum.devices[devices.indexOf(e.device)]!++;
				if (e.controlled) sum.controlled++;
				addSession(e, hour, 'requested');
				addSession(e, hour, 'investigated');
				sourceOf(e)[which]++;
				readerOf(e)[which]++;
				break;
			}
			case 'read': {
				const one = readerOf(e);
				for (const { page, seconds } of e.attention ?? []) {
					sum.seconds += seconds;
					one.seconds += seconds;
					one.pages.set(page, (one.pages.get(page) ?? 0) + seconds);
				}
				break;
			}
			case 'printed':
				sum.printed++;
				readerOf(e).printed++;
				break;
			case 'shown':
				sum.shown++;
				sourceOf(e).shown++;
				break;
			case 'looked':
				sum.looks++;
				if (e.controlled) sum.controlledLooks++;
				addSession(e, hourOf(e.at), 'investigated');
				sourceOf(e).looks++;
				break;
			case 'turned-away':
				sum.refusals++;
				turnAway(e);
				break;
			case 'knocked':
				sum.knocks++;
				break;
			case 'key-used':
				sum.keysUsed++;
				break;
			case 'reminded':
			case 'news':
			case 'receipt':
				break;
			default:
				e.kind satisfies never;
		}
	}
	sum.uniqueRequests = all.requested.size;
	sum.uniqueInvestigations = all.investigated.size;
	sum.controlledUniqueRequests = controlled.requested.size;
	sum.controlledUniqueInvestigations = controlled.investigated.size;
	return sum;
}

/** How far somebody is with an edition. */
export const standings = ['receipt', 'through', 'opened', 'not-yet'] as const;
export type Standing = (typeof standings)[number];

/** Share of the pages that have to be read for an edition to count as read through, unless the site says otherwise. */
export const throughShare = 0.9;

/** Whether an edition of so many pages counts as read through. 29 of 32 pages do (90.6 %), 28 do not. */
export const isThrough = (read: number, pages: number, share = throughShare): boolean => pages > 0 && read >= Math.ceil(share * pages - 1e-9);

/** Figures over a time: staff, robots, pre-loads and double clicks are left out of each. */
export interface Figures {
	readonly openings: number;
	readonly saves: number;
	readonly printed: number;
	readonly refusals: number;
	/** Distinct readers who opened or saved, counted over the whole time. */
	readonly readers: number;
	/** Seconds attended to. */
	readonly seconds: number;
}

export const noFigures: Figures = { openings: 0, saves: 0, printed: 0, refusals: 0, readers: 0, seconds: 0 };
