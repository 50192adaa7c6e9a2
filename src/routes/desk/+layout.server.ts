import type { LayoutServerLoad } from './$types';
import { staff } from '$lib/server/guard/guard';
import { settings } from '$lib/server/settings';

export const load: LayoutServerLoad = (event) => {
	const { name, email } = staff(event);
	return { me: { name, email, staff: true }, maxUpload: settings().IANUA_MAX_UPLOAD };
};
