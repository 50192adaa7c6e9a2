import type { PageServerLoad } from './$types';
import { staff } from '$lib/server/guard/guard';

export const load: PageServerLoad = (event) => {
	staff(event);
};
