// A passkey made or used in this browser, for a form to send.
import { deserialize } from '$app/forms';
import type { PublicKeyCredentialCreationOptionsJSON, PublicKeyCredentialRequestOptionsJSON } from '@simplewebauthn/browser';

/** Whether passkeys of a site's name can be used here: the browser has them, and it is at that name. */
export const takesPasskeys = (site: string | null): boolean => site !== null && site === location.hostname && 'PublicKeyCredential' in window;

/** What came of it: the JSON that a form sends, or why there is none: broken off by whoever sat there, already there, or what the server says. */
export type Passkey = { readonly response: string } | { readonly not: 'brokenOff' | 'passkeyThere' | 'passkeyNot' } | { readonly trouble: string };

/** Asks an action of a page what is to be signed, and has it signed: `make` a new one, or `use` one that is there. */
export async function passkey(action: string, how: 'make' | 'use'): Promise<Passkey> {
	try {
		const [{ startAuthentication, startRegistration }, answer] = await Promise.all([
			import('@simplewebauthn/browser'),
			fetch(action, { method: 'POST', headers: { 'x-sveltekit-action': 'true', accept: 'application/json' }, body: new FormData() })
		]);
		const result = deserialize(await answer.text());
		if (result.type === 'failure') return { trouble: String(result.data?.trouble) };
		if (result.type !== 'success') return { not: 'passkeyNot' };
		const optionsJSON: unknown = result.data?.ask;
		const made =
			how === 'make'
				? startRegistration({ optionsJSON: optionsJSON as PublicKeyCredentialCreationOptionsJSON })
				: startAuthentication({ optionsJSON: optionsJSON as PublicKeyCredentialRequestOptionsJSON });
		return { response: JSON.stringify(await made) };
	} catch (error) {
		const name = error instanceof Error ? error.name : '';
		// the names of W3C Web Authentication, 5.1.3 and 5.1.4
		return { not: name === 'NotAllowedError' || name === 'AbortError' ? 'brokenOff' : name === 'InvalidStateError' ? 'passkeyThere' : 'passkeyNot' };
	}
}
