// Addresses of the documents room: filters, words to find, order, place in the list.
import { filterNames, orderText, usualOrder, type Filters, type Order } from '#core/documents/filters';

export interface RoomQuery {
	readonly q: string;
	readonly filters: Filters;
	readonly order: Order;
	readonly aside: boolean;
	readonly page: number;
}

/** The query of the room's address, empty or with its question mark; what is as usual is left out. */
export function roomQuery(query: RoomQuery, covers: boolean): string {
	const params = new URLSearchParams();
	if (query.q) params.set('q', query.q);
	for (const name of filterNames) for (const value of query.filters[name] ?? []) params.append(name, value);
	const order = orderText(query.order);
	if (order !== orderText(usualOrder(query.q !== ''))) params.set('order', order);
	if (query.aside) params.set('aside', '');
	if (covers) params.set('as', 'covers');
	if (query.page > 1) params.set('page', String(query.page));
	const text = params.toString();
	return text ? `?${text}` : '';
}

/** The picture of a document in lists, so many px wide; its mark changes with the cover. */
export const coverAddress = ({ slug, coverMark }: { readonly slug: string; readonly coverMark: string }, width: 96 | 300 = 300): string =>
	`/d/${slug}/cover/${width}.webp?e=${coverMark}`;
