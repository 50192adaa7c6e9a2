// Keys of all documents: to whom, for what, and what became of them.
import type { PageServerLoad } from './$types';
import { keyStates } from '#core/access/key';
import { wholeNumber } from '#core/text/number';
import { listKeys } from '$lib/server/access/key-list';
import { staff } from '$lib/server/guard/guard';
import { site } from '$lib/server/site/site';

const pageLength = 50;

export const load: PageServerLoad = async (event) => {
	staff(event);
	event.depends('ianua:keys');
	const { searchParams } = event.url;
	const q = searchParams.get('key')?.trim().slice(0, 200) ?? '';
	const state = keyStates.find((s) => s === searchParams.get('state'));
	const document = searchParams.get('document')?.slice(0, 80) ?? '';
	const page = wholeNumber(searchParams.get('page'), 1, { most: 1_000_000 });
	const [keys, { zone }] = await Promise.all([
		listKeys({ q, state, document: document || undefined, offset: (page - 1) * pageLength, limit: pageLength }),
		site()
	]);
	return { keys, query: { q, state: state ?? '', document, page }, pageLength, zone };
};
