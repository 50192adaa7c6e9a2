// Settings: the site's, for its owners, and one's own tokens for programs.
import type { PageServerLoad } from './$types';
import { listTokens } from '$lib/server/people/tokens';
import { listPages, navigationPaths } from '$lib/server/placing/service';
import { webhooks } from '$lib/server/readership/webhooks';
import { settings } from '$lib/server/settings';
import { site } from '$lib/server/site/site';
import { zones } from '$lib/server/site/zones';

export const load: PageServerLoad = async ({ locals }) => ({
	tokens: await listTokens(locals.caller.person!.id),
	given: await site(),
	pages: (await listPages()).map(({ path, title, inNavigation, published }) => ({ path, title, inNavigation, published })),
	navigation: await navigationPaths(),
	zones: zones(),
	webhooks: locals.caller.person!.role === 'owner' ? await webhooks() : [],
	owner: locals.caller.person!.role === 'owner',
	origin: settings().IANUA_ORIGIN
});
