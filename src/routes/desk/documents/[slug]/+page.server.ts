// The sheet of a document: the passage from top to bottom.
import { error, redirect } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';
import { staff } from '$lib/server/guard/guard';
import { keysOf } from '$lib/server/access/key-list';
import { documentView } from '$lib/server/documents/view';
import { countAllMembers, listGroups } from '$lib/server/people/directory';
import { mismatches } from '$lib/server/placing/mismatches';
import { listPages } from '$lib/server/placing/views';
import { settings } from '$lib/server/settings';
import { staffNames } from '$lib/server/people/staff';
import { site } from '$lib/server/site/site';
import { ledger } from '$lib/server/readership/ledger';
import { reported } from '$lib/server/readership/reported';
import { documentSummary, saversOf } from '$lib/server/readership/reports/document';
import { lastMetElsewhere } from '$lib/server/readership/reports/places';
import { periodFrom } from '$lib/server/readership/reports/report';

export const load: PageServerLoad = async (event) => {
	staff(event);
	const { params, url, depends } = event;
	depends('ianua:document');
	const view = await documentView(params.slug);
	if (!view || view.goneAt) error(404, { code: 'not-found', message: 'There is no document at this address.' });
	if (view.slug !== params.slug) redirect(308, `/desk/documents/${view.slug}${url.search}`);
	const period = await periodFrom(new URL('?days=30', url));
	const [people, groups, allMembers, pages, keys, report, savers, recent, found, elsewhere, { placing, framers, reading }] = await Promise.all([
		staffNames(),
		listGroups(),
		countAllMembers(),
		listPages(),
		keysOf(view.slug),
		documentSummary(await reported(view), period),
		saversOf(view.id, period),
		ledger({ document: view.id, limit: 20, of: 'readers' }),
		mismatches({ document: view.slug }),
		lastMetElsewhere([view.slug], period),
		site()
	]);
	return {
		view,
		staff: people,
		groups,
		mismatches: found,
		elsewhere,
		placing: placing ?? {},
		framers: framers ?? [],
		siteReading: reading ?? null,
		origin: settings().IANUA_ORIGIN,
		allMembers,
		keys,
		pages: pages.map(({ id, path, title }) => ({ id, path, title })),
		report,
		savers,
		recent: recent.items.filter((item) => !item.double && item.kind !== 'read').slice(0, 8)
	};
};
