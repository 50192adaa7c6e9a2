import type { LayoutServerLoad } from './$types';
import { staff } from '$lib/server/guard/guard';
import { settings } from '$lib/server/settings';

export const load: LayoutServerLoad = (event) => {
	const { name, email, role } = staff(event);
	return { me: { name, email, staff: true, owner: role === 'owner' }, maxUpload: settings().IANUA_MAX_UPLOAD };
};
