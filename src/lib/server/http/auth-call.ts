// Forms of our own that better-auth carries out: by its own handler, so that its limits on tries hold here too.
import type { RequestEvent } from '@sveltejs/kit';
import { addressHeader, auth } from '../people/auth';
import { settings } from '../settings';

/** Calls an endpoint of better-auth as the browser that sent the form. */
export function authCall(event: RequestEvent, path: string, body: Record<string, unknown>): Promise<Response> {
	const { IANUA_ORIGIN } = settings();
	return auth().handler(
		new Request(new URL(`/api/auth${path}`, IANUA_ORIGIN), {
			method: 'POST',
			headers: {
				'content-type': 'application/json',
				origin: IANUA_ORIGIN,
				cookie: event.request.headers.get('cookie') ?? '',
				'user-agent': event.request.headers.get('user-agent') ?? '',
				[addressHeader]: event.getClientAddress()
			},
			body: JSON.stringify(body)
		})
	);
}

/** What an answer of better-auth says went wrong, in words. */
export async function authTrouble(response: Response, otherwise: string): Promise<string> {
	if (response.status === 429) return 'Too many tries. Wait a quarter of an hour, then try again.';
	const { code } = (await response.json().catch(() => ({}))) as { code?: string };
	const words: Record<string, string> = {
		INVALID_PASSWORD: 'That is not your password.',
		INVALID_CODE: 'That code does not fit. Codes change every half minute: take the newest.',
		INVALID_BACKUP_CODE: 'That spare code is not one of yours, or has been used.',
		PASSWORD_TOO_SHORT: 'The password is too short.',
		PASSWORD_TOO_LONG: 'The password is too long.',
		INVALID_TOKEN: 'This address has been used or is too old. Ask for a new one.'
	};
	return words[code ?? ''] ?? otherwise;
}
