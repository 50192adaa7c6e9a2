// Lists of what is open to everyone, as any program may ask for them: of folders and topics, in an order, some at a time.
import { visitor } from '#core/access/decide';
import { listOrders, listStep, type Listing } from '#core/placing/listing';
import { wholeNumber } from '#core/text/number';
import type { Language } from '#core/words/words';
import { listFor } from './catalogue';
import type { SeenList } from './contract';

/** What the query of such a list asks: `folder` and `topic` (several each), `order`, `most`, and `from`, so many further. What is odd in it is as if it were not there. */
export function openList(query: URLSearchParams, language: Language, order: Listing['order'] = 'title'): Promise<SeenList> {
	const several = (name: string) => query.getAll(name).filter(Boolean).slice(0, 200);
	const most = wholeNumber(query.get('most'), 0);
	const listing: Listing = {
		folders: several('folder'),
		topics: several('topic'),
		order: listOrders.find((known) => known === query.get('order')) ?? order,
		...(most > 0 ? { most: Math.min(most, listStep) } : {}),
		show: 'list',
		beside: false,
		filters: false
	};
	return listFor(listing, { who: visitor, person: null }, { offset: wholeNumber(query.get('from'), 0), language });
}
