// Upkeep: what needs a hand.
import type { PageServerLoad } from './$types';
import { countKnocks } from '$lib/server/access/knocks';
import { mismatches } from '$lib/server/placing/mismatches';
import { upkeep } from '$lib/server/upkeep/list';

export const load: PageServerLoad = async () => {
	const [list, knocks, found] = await Promise.all([upkeep(), countKnocks(), mismatches()]);
	return { ...list, knocks, mismatches: found.filter((f) => !f.intended), intended: found.filter((f) => f.intended) };
};
