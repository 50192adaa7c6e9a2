// Upkeep: what needs a hand.
import type { PageServerLoad } from './$types';
import { sweepStopped } from '$lib/server/intake/sweep';
import { staff } from '$lib/server/guard/guard';
import { countKnocks } from '$lib/server/access/knocks';
import { mismatches } from '$lib/server/placing/mismatches';
import { webhooks } from '$lib/server/readership/webhooks';
import { upkeep } from '$lib/server/upkeep/list';

export const load: PageServerLoad = async (event) => {
	staff(event);
	event.depends('ianua:upkeep');
	const [list, knocks, found, hooks, stopped] = await Promise.all([upkeep(), countKnocks(), mismatches(), webhooks(), sweepStopped()]);
	const silent = hooks.filter((w) => !w.withdrawnAt && (w.failed || w.ended || (w.waiting && w.trouble)));
	return { ...list, stopped, silent, knocks, mismatches: found.filter((f) => !f.intended), intended: found.filter((f) => f.intended) };
};
