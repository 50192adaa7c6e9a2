<!-- What a document asks of a member who reads it: that they say so. A form, which is taken without script too. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import { deserialize } from '$app/forms';
	import type { OwnReceipt } from '$lib/server/reading/receipts';

	let {
		slug,
		receipt,
		trouble = '',
		given = $bindable(untrack(() => receipt.given))
	}: {
		slug: string;
		receipt: OwnReceipt;
		trouble?: string;
		/** The sentence that it is given, where it stands in more than one place. */
		given?: string | null;
	} = $props();
	let refused = $state('');
	let signedOut = $state(false);
	let sending = $state(false);

	/** Gives it where one is: the room stays as it is. */
	async function give(event: SubmitEvent & { currentTarget: HTMLFormElement }) {
		event.preventDefault();
		sending = true;
		refused = '';
		signedOut = false;
		const body = new FormData(event.currentTarget);
		try {
			const answer = await fetch(event.currentTarget.action, { method: 'POST', body, headers: { 'x-sveltekit-action': 'true' } });
			const result = deserialize(await answer.text());
			// to where it stands once it is given, and nowhere else: whose session has gone is led to the sign-in
			const target = result.type === 'redirect' ? new URL(result.location, window.location.href) : null;
			if (target?.hash === '#receipt') given = receipt.now;
			else {
				refused = result.type === 'failure' ? String(result.data?.trouble) : receipt.words.failed;
				signedOut = target?.pathname === '/sign-in';
			}
		} catch {
			refused = receipt.words.failed;
		}
		sending = false;
	}
</script>

{#if given}<p class="given" role="status">{given}</p>
{:else}
	<form method="POST" action="/d/{slug}?/receipt" onsubmit={give}>
		<input type="hidden" name="edition" value={receipt.edition} />
		<span>{receipt.words.asked}</span>
		<button class="btn" disabled={sending}>{receipt.words.give}</button>
		{#if refused || trouble}<em role="alert"
				>{refused || trouble}{#if signedOut}
					<a href="/sign-in?to={encodeURIComponent(window.location.pathname + window.location.search)}">{receipt.words.signIn}</a>{/if}</em
			>{/if}
	</form>
{/if}

<style>
	form {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 8px 14px;
	}
	p {
		margin: 0;
	}
	button {
		min-height: 44px;
	}
	em {
		flex-basis: 100%;
		font-style: normal;
		color: var(--brick);
	}
</style>
