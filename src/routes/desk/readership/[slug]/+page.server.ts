// Readership of one document.
import { error, redirect } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';
import { documentView } from '$lib/server/documents/view';
import { lengths, reportQuery } from '$lib/server/readership/query';
import { documentReport, ledger } from '$lib/server/readership/service';

export const load: PageServerLoad = async ({ params, url }) => {
	const view = await documentView(params.slug);
	if (!view) error(404, { code: 'not-found', message: 'There is no document at this address.' });
	if (view.slug !== params.slug) redirect(308, `/desk/readership/${view.slug}${url.search}`);
	const { length, of, cursor } = reportQuery(url);
	const [report, entries] = await Promise.all([
		documentReport(view.id, { keyed: view.door.inForce === 'keyed', count: view.door.count }, length),
		ledger({ document: view.id, of, cursor, limit: 30 })
	]);
	return { document: { slug: view.slug, title: view.title, sentence: view.door.sentence }, report, entries, of, lengths };
};
