// Who was turned away, why, and how often; with the dead ends that turned them away.
import type { PageServerLoad } from './$types';
import { staff } from '$lib/server/guard/guard';
import { mismatches } from '$lib/server/placing/mismatches';
import { periodFrom } from '$lib/server/readership/reports/report';
import { turnedAwayReport } from '$lib/server/readership/reports/turned-away';

export const load: PageServerLoad = async (event) => {
	staff(event);
	event.depends('ianua:readership');
	const { url } = event;
	const [report, found] = await Promise.all([turnedAwayReport(await periodFrom(url)), mismatches({})]);
	const dead = new Map(found.filter((m) => m.kind === 'dead-end' && !m.intended).map((m) => [`${m.document} ${m.page}`, m]));
	return { ...report, items: report.items.map((r) => ({ ...r, mismatch: dead.get(`${r.slug} ${r.page}`) ?? null })) };
};
