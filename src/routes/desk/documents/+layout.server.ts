// The list of documents: filters, order and place in the list stand in the address; the columns in a cookie of this browser.
import type { LayoutServerLoad } from './$types';
import { filtersOf, orderOf, usualOrder } from '#core/documents/filters';
import { wholeNumber } from '#core/text/number';
import { columnsFrom } from '$lib/ui/documents/columns';
import { site } from '$lib/server/site/site';
import { staff } from '$lib/server/guard/guard';
import { listDocuments } from '$lib/server/documents/list';
import { labels } from '$lib/server/documents/labels';
import { mismatches } from '$lib/server/placing/mismatches';
import { savedFilters } from '$lib/server/documents/saved-filters';

const pageLength = 50;

export const load: LayoutServerLoad = async (event) => {
	const person = staff(event);
	event.depends('ianua:documents');
	const { url, cookies } = event;
	const params = url.searchParams;
	const filters = filtersOf(params);
	const q = params.get('q')?.trim().slice(0, 300) ?? '';
	const order = orderOf(params.get('order'));
	const aside = params.has('aside');
	const shown = wholeNumber(params.get('page'), 1, { most: 100_000 });
	const [{ fields = [] }, list, saved, folders, topics] = await Promise.all([
		site(),
		listDocuments({ q, filters, order, aside, limit: pageLength, offset: (shown - 1) * pageLength }),
		savedFilters(person.id),
		labels('folder'),
		labels('topic')
	]);
	const wrong = new Set((await mismatches({ documents: list.items.map((item) => item.id) })).filter((f) => !f.intended).map((f) => f.documentId));
	return {
		list: {
			...list,
			items: list.items.map((item) => (wrong.has(item.id) ? { ...item, passage: { ...item.passage, placed: 'wrong' as const } } : item))
		},
		saved,
		fields,
		folders: folders.map((f) => f.name),
		topics: topics.map((t) => t.name),
		query: { q, filters, order: order ?? usualOrder(q !== ''), aside, page: shown },
		columns: columnsFrom(cookies.get('ianua_columns')),
		pageLength
	};
};
