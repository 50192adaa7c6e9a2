// Taking up an invitation: to the staff, or as a member to choose a password.
import { error, fail, redirect } from '@sveltejs/kit';
import { Type } from '@sinclair/typebox';
import { Line } from '#core/text/line';
import type { Actions, PageServerLoad } from './$types';
import { IanuaError } from '#core/errors';
import { fieldsOf } from '$lib/server/http/form';
import { accountOf, authCall } from '$lib/server/http/auth-call';
import { takeCookies } from '$lib/server/http/cookies';
import { passwordLength } from '$lib/server/people/auth';
import { acceptInvitation, invitationOf } from '$lib/server/people/staff';
import { compile } from '$lib/server/validate';

export const load: PageServerLoad = async ({ params }) => {
	try {
		const { name, email, role, known } = await invitationOf(params.token);
		return { name, email, role, known, passwordLength };
	} catch (refusal) {
		if (refusal instanceof IanuaError) error(refusal.status, { code: refusal.code, message: refusal.message });
		throw refusal;
	}
};

const check = compile(
	Type.Object({
		name: Line(120),
		password: Type.String({ minLength: passwordLength.min, maxLength: passwordLength.max })
	})
);

export const actions: Actions = {
	default: async (event) => {
		const { request, params, cookies } = event;
		const result = check(await fieldsOf(request));
		if (!result.ok) return fail(422, { trouble: accountOf(event).notRight });
		let email: string;
		let role: string;
		try {
			({ role } = await invitationOf(params.token));
			email = await acceptInvitation(params.token, result.value);
		} catch (refusal) {
			if (refusal instanceof IanuaError) return fail(refusal.status, { trouble: refusal.message });
			throw refusal;
		}
		const response = await authCall(event, '/sign-in/email', { email, password: result.value.password });
		// whose mailbox it is was not seen yet: a mail asks
		if (!response.ok) redirect(303, '/sign-in?confirm');
		takeCookies(response, cookies);
		redirect(303, role === 'member' ? '/me' : '/desk/documents');
	}
};
