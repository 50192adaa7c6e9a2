// Asking for a mail by which a new password is chosen. The answer is the same whether the address is known or not.
import { fail } from '@sveltejs/kit';
import type { Actions } from './$types';
import { messages } from '#core/words/messages';
import { fieldsOf } from '$lib/server/http/form';
import { authCall, authTrouble } from '$lib/server/http/auth-call';

export const actions: Actions = {
	default: async (event) => {
		const email = ((await fieldsOf(event.request))['email'] ?? '').trim();
		const response = await authCall(event, '/request-password-reset', { email });
		if (response.status === 429) return fail(429, { email, trouble: await authTrouble(event, response, '') });
		if (!response.ok) return fail(422, { email, trouble: messages[event.locals.language].site.giveAddress });
		return { email, sent: true };
	}
};
