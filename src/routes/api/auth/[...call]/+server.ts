// The two addresses of the sign-in library that are asked from outside: signing in by a program, and the button of a mailed link. All else
// that it could do goes by forms of ours, or not at all.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { body, problem, route } from '$lib/server/http/api';
import { authCall } from '$lib/server/http/auth-call';
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
	if (event.params.call !== 'magic-link/verify') throw new IanuaError('not-found');
	return authCall(event, `/magic-link/verify${event.url.search}`, undefined);
});

export const [PUT, PATCH, DELETE] = [nothing, nothing, nothing];
