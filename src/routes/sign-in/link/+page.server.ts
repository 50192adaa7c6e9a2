// A mailed link. Opening it signs nobody in (mail programs open links by themselves); the button does.
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ url }) => {
	return { token: url.searchParams.get('token')?.slice(0, 200) ?? '' };
};
