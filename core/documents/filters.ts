// The filters of the documents room: which there are, what their values mean, and how an address carries them.
import { positions } from '../access/door';

/** Every filter with what it goes by. Several may be set at once: a document has to fit each; within one, any of its values. */
export const filterNames = ['folder', 'topic', 'field', 'door', 'condition', 'placed', 'language', 'pages', 'brought', 'by'] as const;
export type FilterName = (typeof filterNames)[number];
export type Filters = { readonly [N in FilterName]?: readonly string[] };

/** Bands of page counts: at least the first, at most the second. */
export const pageBands = { '1': [1, 1], '2-9': [2, 9], '10-49': [10, 49], '50-199': [50, 199], '200-': [200, Infinity] } as const satisfies Record<
	string,
	readonly [number, number]
>;

/** Spans of time since a document was brought in, in days; each takes in those before it, except the last. */
export const broughtSpans = { day: 1, week: 7, month: 30, year: 365, older: Infinity } as const;

const spanNames = Object.keys(broughtSpans);

/** Counts of documents by the narrowest span they fall in, made into how many each span takes in. */
export function withinSpans(narrow: readonly { value: string; count: number }[]): { value: string; count: number }[] {
	let within = 0;
	return spanNames.map((value) => {
		const own = narrow.find((c) => c.value === value)?.count ?? 0;
		within += own;
		return { value, count: value === 'older' ? own : within };
	});
}

/** Values that a filter may take; null where they come from the documents themselves. */
export const filterValues: { readonly [N in FilterName]: readonly string[] | null } = {
	folder: null,
	topic: null,
	field: null,
	door: positions,
	condition: ['sound', 'look', 'refused', 'checking'],
	placed: ['yes', 'no'],
	language: null,
	pages: Object.keys(pageBands),
	brought: Object.keys(broughtSpans),
	by: null
};

export const orderNames = [
	'brought',
	'title',
	'folder',
	'pages',
	'size',
	'condition',
	'door',
	'placed',
	'readers',
	'edition',
	'language',
	'by',
	'match'
] as const;
export type OrderName = (typeof orderNames)[number];
export interface Order {
	readonly by: OrderName;
	readonly down: boolean;
}

/** The order that is used where none is asked for: newest first, or what fits a find best. */
export const usualOrder = (finding: boolean): Order => (finding ? { by: 'match', down: true } : { by: 'brought', down: true });

/** Reads an order: `orderOf('-size')` → { by: 'size', down: true }; null where it is not one. */
export function orderOf(text: string | null): Order | null {
	const by = orderNames.find((o) => o === text?.replace(/^-/, ''));
	return by ? { by, down: text?.startsWith('-') === true } : null;
}

/** An order as an address has it: `-changed` is the latest first. */
export const orderText = (order: Order): string => (order.down ? '-' : '') + order.by;

interface Params {
	getAll(name: string): string[];
}

/** The filters that an address carries. Values that mean nothing are left out. `filtersOf(new URLSearchParams('door=open&door=ajar'))`. */
export function filtersOf(params: Params): Filters {
	const filters: { [N in FilterName]?: string[] } = {};
	for (const name of filterNames) {
		const known = filterValues[name];
		const values = [...new Set(params.getAll(name))].filter((v) => v.length <= 200 && (known === null || known.includes(v))).slice(0, 50);
		if (values.length) filters[name] = values;
	}
	return filters;
}

/** One value of a filter switched on or off; `others` says whether values beside it stay. */
export function toggled(filters: Filters, name: FilterName, value: string, others: boolean): Filters {
	const before = filters[name] ?? [];
	const without = before.filter((v) => v !== value);
	const next = before.includes(value) ? (others ? without : before.length > 1 ? [value] : []) : others ? [...before, value] : [value];
	const { [name]: _was, ...rest } = filters;
	return next.length ? { ...rest, [name]: next } : rest;
}

/** How many documents fit each value of a filter, the other filters taken into account. */
export type Counts = { readonly [N in FilterName]: readonly { readonly value: string; readonly count: number; readonly words?: string }[] };
