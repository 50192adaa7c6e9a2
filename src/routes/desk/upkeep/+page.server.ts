// Upkeep: what needs a hand.
import type { PageServerLoad } from './$types';
import { upkeep } from '$lib/server/upkeep/list';

export const load: PageServerLoad = () => upkeep();
