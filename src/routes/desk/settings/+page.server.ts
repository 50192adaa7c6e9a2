// Settings: the site's, for its owners, and one's own tokens for programs.
import type { PageServerLoad } from './$types';
import { dayOf } from '#core/access/hours';
import { tokenDays } from '#core/people/scope';
import { websites } from '$lib/server/access/websites';
import { staff } from '$lib/server/guard/guard';
import { labels } from '$lib/server/documents/labels';
import { listGroups } from '$lib/server/people/directory';
import { listTokens } from '$lib/server/people/tokens';
import { listPages, navigationPaths } from '$lib/server/placing/views';
import { webhooks } from '$lib/server/readership/webhooks';
import { settings } from '$lib/server/settings';
import { site } from '$lib/server/site/site';
import { zones } from '$lib/server/site/zones';
import { exportBytes } from '$lib/server/upkeep/export';

export const load: PageServerLoad = async (event) => {
	const { id, role } = staff(event);
	event.depends('ianua:settings');
	const { zone } = await site();
	const day = (from: number) => dayOf(Date.now() + from * 86_400_000, zone);
	return {
		tokens: await listTokens(id),
		tokenDays: { today: day(0), usual: day(tokenDays.usual), latest: day(tokenDays.most) },
		folders: (await labels('folder')).map((f) => f.name),
		given: await site(),
		pages: (await listPages()).map(({ path, title, inNavigation, published }) => ({ path, title, inNavigation, published })),
		navigation: await navigationPaths(),
		zones: zones(),
		webhooks: role === 'owner' ? await webhooks() : [],
		websites: role === 'owner' ? await websites() : [],
		groups: (await listGroups()).map(({ slug, name }) => ({ slug, name })),
		owner: role === 'owner',
		exportBytes: role === 'owner' ? await exportBytes() : 0,
		origin: settings().IANUA_ORIGIN
	};
};
