// Signing in and out by forms, so that it works without JavaScript; better-auth does the work.
import { fail, redirect, type RequestEvent } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';
import { messages } from '#core/words/messages';
import { fieldsOf } from '$lib/server/http/form';
import { accountOf, authCall, authTrouble, passkeyResponse } from '$lib/server/http/auth-call';
import { takeCookies } from '$lib/server/http/cookies';
import { redirectTarget } from '$lib/server/http/redirect-target';
import { auth } from '$lib/server/people/auth';
import { passkeySite } from '$lib/server/people/passkeys';
import { providerOf, providers } from '$lib/server/people/providers';
import { roleOf } from '$lib/server/people/directory';

/** Why somebody is back from a provider, by what the address says of it. */
const reasons: Readonly<Record<string, 'providerAway' | 'tooManyTries' | 'outNot' | undefined>> = {
	unreachable: 'providerAway',
	often: 'tooManyTries',
	'no-way-out': 'outNot'
};
const known = () => providers().map(({ id, name }) => ({ id, name }));
const shown = (id: string | null) => known().find((provider) => provider.id === id) ?? null;

export const load: PageServerLoad = ({ url }) => ({
	providers: known(),
	// back from one of them without having come in
	refused: shown(url.searchParams.get('with'))?.name ?? null,
	/** Signed out here just now, by whom one can sign out there too. */
	out: shown(url.searchParams.get('out')),
	why: reasons[url.searchParams.get('error') ?? ''] ?? ('providerRefused' as const),
	/** The name of the site that passkeys hold for, where there can be any. */
	passkeys: passkeySite()?.id ?? null,
	to: redirectTarget(url.searchParams.get('to')),
	over: url.searchParams.has('error'),
	confirm: url.searchParams.has('confirm')
});

/** On to where somebody wanted to go, or to where such people begin: who may come in is a person. */
async function goOn({ url }: RequestEvent, personId: string): Promise<never> {
	redirect(303, redirectTarget(url.searchParams.get('to')) ?? ((await roleOf(personId)) === 'member' ? '/me' : '/desk/documents'));
}

export const actions: Actions = {
	in: async (event) => {
		const form = await fieldsOf(event.request);
		const [email, password] = [(form.email ?? '').trim(), form.password ?? ''];
		const to = redirectTarget(event.url.searchParams.get('to'));
		const words = messages[event.locals.language].site;
		const response = await authCall(event, '/sign-in/email', { email, password });
		if (!response.ok)
			return fail(response.status === 429 ? 429 : 400, {
				email,
				trouble: await authTrouble(event, response, words.notTogether as string)
			});
		takeCookies(response, event.cookies);
		const answer = (await response.json()) as { user?: { id: string }; twoFactorRedirect?: boolean };
		if (answer.twoFactorRedirect) redirect(303, `/sign-in/code${to ? `?to=${encodeURIComponent(to)}` : ''}`);
		// an answer without a way to the code is of somebody
		return goOn(event, answer.user!.id);
	},
	// what a passkey is to sign, once
	passkeyAsk: async (event) => {
		const response = passkeySite() && (await authCall(event, '/passkey/generate-authenticate-options', undefined));
		if (!response?.ok)
			return fail(response?.status ?? 404, {
				trouble: response ? await authTrouble(event, response, accountOf(event).passkeyNot) : accountOf(event).passkeyNot
			});
		takeCookies(response, event.cookies);
		return { ask: { ...((await response.json()) as object), userVerification: 'required' } };
	},
	passkey: async (event) => {
		const response = await authCall(event, '/passkey/verify-authentication', { response: passkeyResponse((await fieldsOf(event.request)).response) });
		if (!response.ok) return fail(response.status === 429 ? 429 : 400, { trouble: await authTrouble(event, response, accountOf(event).passkeyNot) });
		takeCookies(response, event.cookies);
		return goOn(event, ((await response.json()) as { user: { id: string } }).user.id);
	},
	link: async (event) => {
		const email = ((await fieldsOf(event.request))['email'] ?? '').trim();
		const response = await authCall(event, '/sign-in/magic-link', { email });
		if (response.status === 429) return fail(429, { email, trouble: messages[event.locals.language].site.tooManyTries });
		if (!response.ok) return fail(422, { email, trouble: messages[event.locals.language].site.giveAddress });
		return { email, sent: true };
	},
	out: async ({ request, cookies, setHeaders, locals }) => {
		const came = locals.caller.person && (await providerOf(locals.caller.person.id));
		const response = await auth().api.signOut({ headers: request.headers, asResponse: true });
		takeCookies(response, cookies);
		// where somebody was in what they read is kept in their browser: on a shared one it goes with them (Clear Site Data, W3C)
		setHeaders({ 'clear-site-data': '"storage"' });
		redirect(303, came ? `/sign-in?out=${came}` : '/');
	}
};
