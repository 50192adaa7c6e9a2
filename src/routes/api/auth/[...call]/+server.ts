// The addresses of the sign-in library that are asked from outside: signing in by a program, the button of a mailed link, and where identity providers lead back to. All else
// that it could do goes by forms of ours, or not at all.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { body, route } from '$lib/server/http/api';
import { problem } from '$lib/server/http/problem';
import { authCall } from '$lib/server/http/auth-call';
import { providers } from '$lib/server/people/providers';
import { compile } from '$lib/server/validate';
import { Type } from '@sinclair/typebox';

const checkSignIn = compile(
	Type.Object({
		email: Type.String({ maxLength: 320 }),
		password: Type.String({ maxLength: 1000 }),
		callbackURL: Type.Optional(Type.String({ maxLength: 2000 })),
		rememberMe: Type.Optional(Type.Boolean())
	})
);

const nothing: RequestHandler = ({ locals }) => Promise.resolve(problem(new IanuaError('not-found'), locals.requestId));

export const POST: RequestHandler = route(async (event) => {
	if (event.params.call !== 'sign-in/email') throw new IanuaError('not-found');
	return authCall(event, '/sign-in/email', await body(event, checkSignIn));
});

export const GET: RequestHandler = route(async (event) => {
	const { call } = event.params;
	// back from an identity provider of this site, and from no other
	if (call !== 'magic-link/verify' && !providers().some(({ id }) => call === `callback/${id}`)) throw new IanuaError('not-found');
	return authCall(event, `/${call}${event.url.search}`, undefined);
});

export const [PUT, PATCH, DELETE] = [nothing, nothing, nothing];
