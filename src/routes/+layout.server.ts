import type { LayoutServerLoad } from './$types';
import { messages } from '#core/words/messages';
import { navigationFor } from '$lib/server/placing/views';
import { siteLook } from '$lib/server/site/site';

/** Routes that have no site around them. */
const bare = /^\/(?:desk|embed|begin|d\/\[slug\]\/read)(?:\/|$)/;

export const load: LayoutServerLoad = async ({ locals, cookies, depends, route }) => {
	depends('ianua:site');
	const { person, who } = locals.caller;
	const [site, navigation] = await Promise.all([siteLook(), bare.test(route.id ?? '') ? [] : navigationFor(locals.caller)]);
	return {
		site,
		navigation,
		me: person ? { name: person.name, email: person.email, staff: who.kind === 'staff' } : null,
		language: locals.language,
		words: messages[locals.language].site,
		theme: cookies.get('ianua_theme') ?? 'system'
	};
};
