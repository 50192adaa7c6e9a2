// Readership of the whole site.
import type { PageServerLoad } from './$types';
import { staff } from '$lib/server/guard/guard';
import { ledger } from '$lib/server/readership/ledger';
import { entriesQuery } from '$lib/server/readership/query';
import { subscriptionOf } from '$lib/server/readership/subscriptions';
import { overview } from '$lib/server/readership/reports/overview';
import { periodFrom } from '$lib/server/readership/reports/report';

export const load: PageServerLoad = async (event) => {
	const person = staff(event);
	event.depends('ianua:readership');
	const { url } = event;
	const { of, cursor } = entriesQuery(url);
	const [told, report, entries] = await Promise.all([
		subscriptionOf(person.id, null),
		overview(await periodFrom(url), { documents: url.searchParams.has('all') ? 1000 : 20, sources: 8 }),
		ledger({ of, cursor, limit: 20 })
	]);
	return { report, entries, told, of };
};
