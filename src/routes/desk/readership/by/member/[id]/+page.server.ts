// What one member opened, read and saved.
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';
import { staff } from '$lib/server/guard/guard';
import { isId } from '$lib/server/id';
import { ledger } from '$lib/server/readership/ledger';
import { entriesQuery } from '$lib/server/readership/query';
import { periodFrom } from '$lib/server/readership/reports/report';
import { readerReport } from '$lib/server/readership/reports/reader';

export const load: PageServerLoad = async (event) => {
	staff(event);
	event.depends('ianua:readership');
	const { params, url } = event;
	const report = isId(params.id) ? await readerReport({ person: params.id }, await periodFrom(url)) : null;
	if (!report) error(404, { code: 'not-found', message: 'There is nobody of that kind here.' });
	const { cursor } = entriesQuery(url);
	return { report, entries: await ledger({ person: params.id, cursor, limit: 30 }) };
};
