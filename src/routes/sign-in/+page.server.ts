// Signing in and out by a form, so that it works without JavaScript; better-auth does the work.
import { fail, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';
import { addressHeader, auth } from '$lib/server/people/auth';
import { takeCookies } from '$lib/server/http/cookies';
import { roleOf } from '$lib/server/people/service';
import { settings } from '$lib/server/settings';
import { navigationFor } from '$lib/server/placing/service';

/** Where to go on: only a path of this site. */
function wayOn(to: string | null): string | null {
	return to && /^\/(?![/\\])/.test(to) ? to : null;
}

export const load: PageServerLoad = async ({ url, locals }) => ({
	to: wayOn(url.searchParams.get('to')),
	navigation: await navigationFor(locals.caller)
});

export const actions: Actions = {
	in: async ({ request, cookies, getClientAddress, url }) => {
		const form = await request.formData();
		const [email, password] = [String(form.get('email') ?? '').trim(), String(form.get('password') ?? '')];
		// by better-auth's own handler, so that its limit on tries holds here too
		const response = await auth().handler(
			new Request(new URL('/api/auth/sign-in/email', settings().IANUA_ORIGIN), {
				method: 'POST',
				headers: { 'content-type': 'application/json', [addressHeader]: getClientAddress() },
				body: JSON.stringify({ email, password })
			})
		);
		if (response.status === 429) return fail(429, { email, trouble: 'Too many tries. Wait a minute, then try again.' });
		if (!response.ok) return fail(400, { email, trouble: 'The address and the password do not go together.' });
		takeCookies(response, cookies);
		const { user } = (await response.json()) as { user: { id: string } };
		const role = await roleOf(user.id);
		redirect(303, wayOn(url.searchParams.get('to')) ?? (role === 'member' ? '/me' : '/desk/documents'));
	},
	out: async ({ request, cookies }) => {
		const response = await auth().api.signOut({ headers: request.headers, asResponse: true });
		takeCookies(response, cookies);
		redirect(303, '/');
	}
};
