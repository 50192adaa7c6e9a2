// Readership of the whole site.
import type { PageServerLoad } from './$types';
import { lengths, reportQuery } from '$lib/server/readership/query';
import { figuresByDocument, ledger, siteReport } from '$lib/server/readership/service';

export const load: PageServerLoad = async ({ url }) => {
	const { length, of, cursor } = reportQuery(url);
	const [report, documents, entries] = await Promise.all([siteReport(length), figuresByDocument(length), ledger({ of, cursor, limit: 30 })]);
	return { report, documents, entries, of, lengths };
};
