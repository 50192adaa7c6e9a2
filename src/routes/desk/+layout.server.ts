import type { LayoutServerLoad } from './$types';
import { staff } from '$lib/server/guard/guard';
import { settings } from '$lib/server/settings';

export const load: LayoutServerLoad = (event) => {
	staff(event);
	return { maxUpload: settings().IANUA_MAX_UPLOAD };
};
