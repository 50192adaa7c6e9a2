// Settings: the site's, for its owners, and one's own tokens for programs.
import type { PageServerLoad } from './$types';
import { listTokens } from '$lib/server/people/tokens';
import { settings } from '$lib/server/settings';

export const load: PageServerLoad = async ({ locals }) => ({
	tokens: await listTokens(locals.caller.person!.id),
	owner: locals.caller.person!.role === 'owner',
	origin: settings().IANUA_ORIGIN
});
