// A form that sends a passkey made or used in this browser.
import { onMount, tick } from 'svelte';
import { deserialize } from '$app/forms';
import type { PublicKeyCredentialCreationOptionsJSON, PublicKeyCredentialRequestOptionsJSON } from '@simplewebauthn/browser';
import { accountWords } from '$lib/ui/parts/words';

/** What the server says against it, in words. */
class Refused extends Error {}

/** Asks the page's action `passkeyAsk` what is to be signed, and has it signed; throws what the browser throws (W3C Web Authentication, 5.1.3 and 5.1.4), or `Refused`. */
async function signed(how: 'make' | 'use'): Promise<string | null> {
	const [{ startAuthentication, startRegistration }, answer] = await Promise.all([
		import('@simplewebauthn/browser'),
		fetch('?/passkeyAsk', { method: 'POST', headers: { 'x-sveltekit-action': 'true', accept: 'application/json' }, body: new FormData() })
	]);
	const result = deserialize(await answer.text());
	if (result.type === 'redirect') {
		// the session has gone
		location.assign(result.location);
		return null;
	}
	if (result.type === 'failure') throw new Refused(String(result.data?.trouble));
	const optionsJSON: unknown = result.type === 'success' ? result.data?.ask : null;
	const made =
		how === 'make'
			? startRegistration({ optionsJSON: optionsJSON as PublicKeyCredentialCreationOptionsJSON })
			: startAuthentication({ optionsJSON: optionsJSON as PublicKeyCredentialRequestOptionsJSON });
	return JSON.stringify(await made);
}

function wordsFor(error: unknown): string {
	if (error instanceof Refused) return error.message;
	const name = error instanceof Error ? error.name : '';
	return accountWords(name === 'NotAllowedError' || name === 'AbortError' ? 'brokenOff' : name === 'InvalidStateError' ? 'passkeyThere' : 'passkeyNot');
}

/** Has a new passkey made, or one that is there used, and sends it by its form as the field `response`. */
export class PasskeyForm {
	/** Whether it can be done here: the browser has passkeys, and is at the name that the site's hold for. */
	usable = $state(false);
	response = $state('');
	/** Why it was not done, in words. */
	trouble = $state('');
	form = $state<HTMLFormElement>();

	constructor(
		site: () => string | null,
		readonly how: 'make' | 'use'
	) {
		onMount(() => {
			this.usable = site() === location.hostname && 'PublicKeyCredential' in window;
		});
	}

	readonly press = async (event: Event) => {
		event.preventDefault();
		this.trouble = '';
		try {
			this.response = (await signed(this.how)) ?? '';
			await tick();
			if (this.response) this.form?.submit();
		} catch (error) {
			this.trouble = wordsFor(error);
		}
	};
}
