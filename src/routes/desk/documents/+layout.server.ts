// The list of documents: filters, order and place in the list stand in the address.
import type { LayoutServerLoad } from './$types';
import { positions, type Position } from '#core/access/door';
import { listDocuments, orders, type Order } from '$lib/server/documents/service';

const pageLength = 50;

export const load: LayoutServerLoad = async ({ url }) => {
	const params = url.searchParams;
	const door = positions.find((p): p is Position => p === params.get('door'));
	const order = orders.find((o): o is Order => o === params.get('order')) ?? 'newest';
	const condition = params.get('condition') === 'look' ? ('look' as const) : undefined;
	const shown = Math.max(1, Number(params.get('page')) || 1);
	const q = params.get('q')?.trim() ?? '';
	return {
		list: await listDocuments({ q: q || undefined, door, condition, order, limit: pageLength, offset: (shown - 1) * pageLength }),
		query: { q, door: door ?? null, order, condition: condition ?? null, page: shown },
		pageLength
	};
};
