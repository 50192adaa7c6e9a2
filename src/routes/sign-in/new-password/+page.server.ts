// Choosing a new password by the address that was mailed. Everywhere one was signed in before ends.
import { fail } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';
import { fieldsOf } from '$lib/server/http/form';
import { accountOf, authCall, authTrouble } from '$lib/server/http/auth-call';
import { passwordLength } from '$lib/server/people/auth';

export const load: PageServerLoad = () => ({ passwordLength });

export const actions: Actions = {
	default: async (event) => {
		const newPassword = (await fieldsOf(event.request))['password'] ?? '';
		const response = await authCall(event, '/reset-password', { newPassword, token: event.url.searchParams.get('token') ?? '' });
		if (!response.ok) return fail(422, { trouble: await authTrouble(event, response, accountOf(event).addressOver) });
		return { done: true };
	}
};
