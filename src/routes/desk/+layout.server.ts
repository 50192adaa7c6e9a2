import type { LayoutServerLoad } from './$types';
import { staff } from '$lib/server/guard/guard';
import { metFrom } from '$lib/ui/help/house-words';
import { settings } from '$lib/server/settings';

export const load: LayoutServerLoad = (event) => {
	const { name, email, role } = staff(event);
	return { me: { name, email, staff: true, owner: role === 'owner' }, met: metFrom(event.cookies.get('ianua_met')), maxUpload: settings().IANUA_MAX_UPLOAD };
};
