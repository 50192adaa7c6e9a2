import type { LayoutServerLoad } from './$types';
import { messages } from '#core/words/messages';
import { siteLook } from '$lib/server/site/site';

export const load: LayoutServerLoad = async ({ locals, cookies, depends }) => {
	depends('ianua:site');
	const { person, who } = locals.caller;
	return {
		site: await siteLook(),
		me: person ? { name: person.name, email: person.email, staff: who.kind === 'staff' } : null,
		language: locals.language,
		words: messages[locals.language].site,
		theme: cookies.get('ianua_theme') ?? 'system'
	};
};
