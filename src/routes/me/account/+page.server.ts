// One's account: who one is here, where one is signed in, the second factor of staff, and one's record.
import { fail, redirect, type RequestEvent } from '@sveltejs/kit';
import { toString as qrOf } from 'qrcode';
import type { Actions, PageServerLoad } from './$types';
import { IanuaError } from '#core/errors';
import { fieldsOf } from '$lib/server/http/form';
import { accountOf, authCall, authTrouble, passkeyResponse } from '$lib/server/http/auth-call';
import { takeCookies } from '$lib/server/http/cookies';
import { asLine } from '#core/text/line';
import { passwordLength } from '$lib/server/people/auth';
import { passkeySite, passkeysOf } from '$lib/server/people/passkeys';
import { eraseSelf } from '$lib/server/people/record';
import { membershipsOf, secondFactorOf } from '$lib/server/people/directory';
import { member } from '$lib/server/guard/guard';
import { endOtherSessions, endSession, sessionsOf } from '$lib/server/people/sessions';
import { sessionTokenOf } from '$lib/server/people/who';

const tokenHere = (event: RequestEvent) => sessionTokenOf(event.request.headers.get('cookie'));

export const load: PageServerLoad = async (event) => {
	const person = member(event);
	const [memberships, sessions, passkeys, secondFactor] = await Promise.all([
		membershipsOf(person.id),
		sessionsOf(person.id, tokenHere(event)),
		passkeysOf(person.id),
		secondFactorOf(person.id)
	]);
	return { memberships, sessions, passkeys, passkeySite: passkeySite()?.id ?? null, secondFactor, passwordLength };
};

const field = async (event: RequestEvent, name: string) => (await fieldsOf(event.request.clone()))[name] ?? '';

export const actions: Actions = {
	end: async (event) => {
		const { id } = member(event);
		const which = await field(event, 'id');
		if (which === 'others') await endOtherSessions(id, tokenHere(event));
		else await endSession(id, which);
		return { about: 'sessions', done: accountOf(event).outThereDone };
	},
	password: async (event) => {
		member(event);
		const response = await authCall(event, '/change-password', {
			currentPassword: await field(event, 'current'),
			newPassword: await field(event, 'password'),
			revokeOtherSessions: true
		});
		if (!response.ok) return fail(422, { about: 'password', trouble: await authTrouble(event, response, accountOf(event).didNotWork) });
		takeCookies(response, event.cookies);
		return { about: 'password', done: accountOf(event).passwordDone };
	},
	// what a new passkey is to sign, once
	passkeyAsk: async (event) => {
		member(event);
		const response = passkeySite() && (await authCall(event, '/passkey/generate-register-options', undefined));
		if (!response?.ok)
			return fail(response?.status ?? 404, {
				about: 'passkeys',
				trouble: response ? await authTrouble(event, response, accountOf(event).passkeyNot) : accountOf(event).passkeyNot
			});
		takeCookies(response, event.cookies);
		return { ask: (await response.json()) as object };
	},
	addPasskey: async (event) => {
		member(event);
		const name = asLine(await field(event, 'name')).slice(0, 60) || accountOf(event).myPasskey;
		const response = await authCall(event, '/passkey/verify-registration', { response: passkeyResponse(await field(event, 'response')), name });
		if (!response.ok)
			return fail(response.status === 429 ? 429 : 422, { about: 'passkeys', trouble: await authTrouble(event, response, accountOf(event).passkeyNot) });
		return { about: 'passkeys', done: accountOf(event).passkeyAdded };
	},
	removePasskey: async (event) => {
		member(event);
		const response = await authCall(event, '/passkey/delete-passkey', { id: await field(event, 'id') });
		if (!response.ok) return fail(422, { about: 'passkeys', trouble: await authTrouble(event, response, accountOf(event).didNotWork) });
		return { about: 'passkeys', done: accountOf(event).passkeyGone };
	},
	// staff: a code besides the password
	prepare: async (event) => {
		const { role } = member(event);
		if (role === 'member') return fail(403, { about: 'factor', trouble: 'A second factor is for staff.' });
		const response = await authCall(event, '/two-factor/enable', { password: await field(event, 'current') });
		if (!response.ok) return fail(422, { about: 'factor', trouble: await authTrouble(event, response, accountOf(event).didNotWork) });
		const { totpURI, backupCodes } = (await response.json()) as { totpURI: string; backupCodes: string[] };
		const secret = new URL(totpURI).searchParams.get('secret') ?? '';
		return { about: 'factor', prepared: { qr: await qrOf(totpURI, { type: 'svg', margin: 4 }), secret, spare: backupCodes } };
	},
	confirm: async (event) => {
		member(event);
		const response = await authCall(event, '/two-factor/verify-totp', { code: (await field(event, 'code')).replace(/\s/g, '') });
		if (!response.ok) return fail(422, { about: 'factor', trouble: `${await authTrouble(event, response, accountOf(event).codeNot)} Begin again.` });
		takeCookies(response, event.cookies);
		return { about: 'factor', done: 'From now on you are asked for a code besides the password.' };
	},
	without: async (event) => {
		member(event);
		const response = await authCall(event, '/two-factor/disable', { password: await field(event, 'current') });
		if (!response.ok) return fail(422, { about: 'factor', trouble: await authTrouble(event, response, accountOf(event).didNotWork) });
		takeCookies(response, event.cookies);
		return { about: 'factor', done: 'You sign in with the password alone now.' };
	},
	erase: async (event) => {
		const { id, role } = member(event);
		if (role !== 'member') return fail(403, { about: 'erase', trouble: 'A staff account is closed and handed over in People, under Staff.' });
		if ((await field(event, 'sure')) !== 'on') return fail(422, { about: 'erase', trouble: accountOf(event).sayFirst });
		try {
			await eraseSelf(id, await field(event, 'current'));
		} catch (refusal) {
			if (refusal instanceof IanuaError) return fail(refusal.status, { about: 'erase', trouble: refusal.message });
			throw refusal;
		}
		redirect(303, '/');
	}
};
