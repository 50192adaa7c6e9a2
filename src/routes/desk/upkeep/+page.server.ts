// Upkeep: what needs a hand.
import type { PageServerLoad } from './$types';
import { countKnocks } from '$lib/server/access/knocks';
import { upkeep } from '$lib/server/upkeep/list';

export const load: PageServerLoad = async () => {
	const [list, knocks] = await Promise.all([upkeep(), countKnocks()]);
	return { ...list, knocks };
};
