// On to where one signs out at the organisation's identity provider, for who is signed out here.
import { redirect } from '@sveltejs/kit';
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { problem } from '$lib/server/http/problem';
import { providers, signOutAt } from '$lib/server/people/providers';

export const GET: RequestHandler = async ({ params, locals }) => {
	const provider = providers().find(({ id }) => id === params.provider);
	if (!provider) return problem(new IanuaError('not-found'), locals.requestId);
	redirect(303, (await signOutAt(provider)) ?? `/sign-in?with=${provider.id}&error=no-way-out`);
};
