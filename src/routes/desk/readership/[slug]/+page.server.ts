// Readership of one document.
import { error, redirect } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';
import { wholeNumber } from '#core/text/number';
import { staff } from '$lib/server/guard/guard';
import { documentView } from '$lib/server/documents/view';
import { ledger } from '$lib/server/readership/ledger';
import { entriesQuery } from '$lib/server/readership/query';
import { reported } from '$lib/server/readership/reported';
import { subscriptionOf } from '$lib/server/readership/subscriptions';
import { documentReport } from '$lib/server/readership/reports/document';
import { periodFrom } from '$lib/server/readership/reports/report';

export const load: PageServerLoad = async (event) => {
	const person = staff(event);
	event.depends('ianua:readership');
	const { params, url } = event;
	const view = await documentView(params.slug);
	if (!view) error(404, { code: 'not-found', message: 'There is no document at this address.' });
	if (view.slug !== params.slug) redirect(308, `/desk/readership/${view.slug}${url.search}`);
	const { of, cursor } = entriesQuery(url);
	const asked = wholeNumber(url.searchParams.get('edition'), view.edition);
	const [report, entries, told] = await Promise.all([
		documentReport(await reported(view, asked), await periodFrom(url)),
		ledger({ document: view.id, of, cursor, limit: 20 }),
		subscriptionOf(person.id, view.id)
	]);
	return {
		document: {
			slug: view.slug,
			title: view.title,
			sentence: view.door.sentence,
			edition: view.edition,
			asksReceipt: view.receipt !== null,
			editions: view.editions.filter((e) => e.pages > 0).map(({ number, at }) => ({ number, at }))
		},
		report,
		entries,
		told,
		of
	};
};
