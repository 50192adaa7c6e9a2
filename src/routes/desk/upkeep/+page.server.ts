// Upkeep: what needs a hand.
import type { PageServerLoad } from './$types';
import { sweepStopped } from '$lib/server/intake/sweep';
import { staff } from '$lib/server/guard/guard';
import { countKnocks } from '$lib/server/access/knocks';
import { mismatches } from '$lib/server/placing/mismatches';
import { webhooks } from '$lib/server/readership/webhooks';
import { upkeep } from '$lib/server/upkeep/list';
import { toldOwners } from '$lib/server/upkeep/look-over';

export const load: PageServerLoad = async (event) => {
	const { role } = staff(event);
	event.depends('ianua:upkeep');
	const [list, knocks, found, hooks, stopped, told] = await Promise.all([
		upkeep(),
		countKnocks(),
		mismatches(),
		webhooks(),
		sweepStopped(),
		role === 'owner' ? toldOwners() : []
	]);
	const silent = hooks.filter((w) => !w.withdrawnAt && (w.failed || w.ended || (w.waiting && w.trouble)));
	return { ...list, stopped, told, silent, knocks, mismatches: found.filter((f) => !f.intended), intended: found.filter((f) => f.intended) };
};
