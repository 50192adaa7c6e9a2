// The second factor: a code of the moment, or one of the spare codes.
import { fail, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';
import { fieldsOf } from '$lib/server/http/form';
import { accountOf, authCall, authTrouble } from '$lib/server/http/auth-call';
import { takeCookies } from '$lib/server/http/cookies';
import { redirectTarget } from '$lib/server/http/redirect-target';

export const load: PageServerLoad = ({ url }) => ({ to: redirectTarget(url.searchParams.get('to')) });

export const actions: Actions = {
	default: async (event) => {
		const code = ((await fieldsOf(event.request))['code'] ?? '').replace(/\s/g, '');
		const spare = !/^\d{6}$/.test(code);
		const response = await authCall(event, spare ? '/two-factor/verify-backup-code' : '/two-factor/verify-totp', { code });
		if (!response.ok)
			return fail(response.status === 429 ? 429 : 401, {
				trouble: await authTrouble(event, response, accountOf(event).codeOver)
			});
		takeCookies(response, event.cookies);
		redirect(303, redirectTarget(event.url.searchParams.get('to')) ?? '/desk/documents');
	}
};
