// Ends all news by mail to somebody, by the address in such a mail: no sign-in, one press. Opening it ends nothing, as programs for mail open
// links by themselves; they press by a POST (RFC 8058).
import { error } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';
import { messages } from '#core/words/messages';
import type { Language } from '#core/words/words';
import { endNews, personOfEnd } from '$lib/server/news/wishes';

function personOrNothing(token: string, language: Language): string {
	const person = personOfEnd(token);
	if (person === null) error(404, { code: 'not-found', message: messages[language].site.nothingHereWords as string });
	return person;
}

export const load: PageServerLoad = ({ params, locals }) => {
	personOrNothing(params.token, locals.language);
};

export const actions: Actions = {
	default: async ({ params, locals }) => {
		await endNews(personOrNothing(params.token, locals.language), null);
		return { ended: true };
	}
};
