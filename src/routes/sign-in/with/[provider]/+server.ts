// The way to the organisation's identity provider, and where from there.
import { redirect } from '@sveltejs/kit';
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { problem } from '$lib/server/http/problem';
import { authCall } from '$lib/server/http/auth-call';
import { takeCookies } from '$lib/server/http/cookies';
import { redirectTarget } from '$lib/server/http/redirect-target';
import { log } from '$lib/server/log';
import { providers } from '$lib/server/people/providers';

export const GET: RequestHandler = async (event) => {
	const provider = providers().find(({ id }) => id === event.params.provider);
	if (!provider) return problem(new IanuaError('not-found'), event.locals.requestId);
	const back = `/sign-in?with=${provider.id}`;
	const to = redirectTarget(event.url.searchParams.get('to'));
	const answer = await authCall(event, '/sign-in/social', {
		provider: provider.id,
		callbackURL: to ?? '/me',
		errorCallbackURL: `${back}${to ? `&to=${encodeURIComponent(to)}` : ''}`,
		disableRedirect: true
	});
	if (answer.status === 429) redirect(303, `${back}&error=often`);
	const { url } = (await answer.json().catch(() => ({}))) as { url?: string };
	// one that cannot be reached has no address to lead to
	if (!answer.ok || !url) {
		log().warn({ provider: provider.id, status: answer.status }, 'the identity provider could not be asked');
		redirect(303, `${back}&error=unreachable`);
	}
	takeCookies(answer, event.cookies);
	redirect(303, url);
};
