// Forms of our own that better-auth carries out: by its own handler, so that its limits on tries hold here too.
import type { RequestEvent } from '@sveltejs/kit';
import { messages } from '#core/words/messages';
import type { AccountWords } from '#core/words/words';
import { addressHeader, auth } from '../people/auth';
import { settings } from '../settings';

/**
 * Calls an endpoint of better-auth as the browser that asked: with a body by POST, without one by GET. The origin has been looked at
 * already, and the address is that of the connection.
 */
export async function authCall(event: RequestEvent, path: string, body: unknown): Promise<Response> {
	const { IANUA_ORIGIN } = settings();
	const answer = await auth().handler(
		new Request(new URL(`/api/auth${path}`, IANUA_ORIGIN), {
			method: body === undefined ? 'GET' : 'POST',
			headers: {
				'content-type': 'application/json',
				origin: IANUA_ORIGIN,
				cookie: event.request.headers.get('cookie') ?? '',
				'user-agent': event.request.headers.get('user-agent') ?? '',
				[addressHeader]: event.getClientAddress()
			},
			...(body === undefined ? {} : { body: JSON.stringify(body) })
		})
	);
	// it says so by a field of its own
	const seconds = answer.headers.get('x-retry-after');
	if (seconds && answer.status === 429) event.setHeaders({ 'retry-after': seconds });
	return answer;
}

/** What an answer of better-auth says went wrong, in the reader's language. */
export async function authTrouble({ locals }: RequestEvent, response: Response, otherwise: string): Promise<string> {
	const { site, account } = messages[locals.language] as { site: Record<string, string>; account: Record<string, string> };
	// every language has these words
	if (response.status === 429) return site.tooManyTries!;
	const { code } = (await response.json().catch(() => ({}))) as { code?: string };
	const names: Record<string, string> = {
		INVALID_PASSWORD: 'notYourPassword',
		INVALID_CODE: 'codeNot',
		INVALID_BACKUP_CODE: 'spareNot',
		ACCOUNT_SUSPENDED: 'suspended',
		CONFIRM_BY_MAIL: 'confirmByMail',
		BY_PROVIDER: 'byProvider',
		PASSWORD_TOO_SHORT: 'tooShort',
		PASSWORD_TOO_LONG: 'tooLong',
		INVALID_TOKEN: 'addressOver',
		SESSION_NOT_FRESH: 'passkeyFresh'
	};
	return account[names[code ?? ''] ?? ''] ?? otherwise;
}

/** What a browser made of a passkey, as a form sends it: JSON (W3C Web Authentication, AuthenticationResponseJSON and RegistrationResponseJSON); nothing where it is none. */
export function passkeyResponse(field: string | undefined): object {
	try {
		const given: unknown = JSON.parse(field ?? '');
		return typeof given === 'object' && given !== null ? given : {};
	} catch {
		return {};
	}
}

/** The words of pages about one's own account, in the reader's language; those that name nothing. */
export const accountOf = ({ locals }: RequestEvent) => messages[locals.language].account as Readonly<Record<keyof AccountWords, string>>;
