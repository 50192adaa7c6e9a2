<!-- The session has gone: sign in here, and what was pressed is carried out. By the same forms as the page for signing in. -->
<script lang="ts">
	import { deserialize } from '$app/forms';
	import { Button, Input, Label, Modal } from 'flowbite-svelte';
	import { session } from './session.svelte';

	let { email: known }: { email: string } = $props();
	let email = $derived(known);
	let password = $state('');
	let code = $state('');
	let step = $state<'password' | 'code'>('password');
	let trouble = $state('');
	let busy = $state(false);

	function end(signedIn: boolean) {
		const { asked } = session;
		[password, code, step, trouble] = ['', '', 'password', ''];
		asked?.answer(signedIn);
	}

	async function send(event: SubmitEvent) {
		event.preventDefault();
		busy = true;
		trouble = '';
		const body = new FormData();
		if (step === 'code') body.append('code', code);
		else {
			body.append('email', email);
			body.append('password', password);
		}
		try {
			const response = await fetch(step === 'code' ? '/sign-in/code' : '/sign-in?/in', {
				method: 'POST',
				headers: { 'x-sveltekit-action': 'true', accept: 'application/json' },
				body
			});
			const result = deserialize(await response.text());
			if (result.type === 'failure') trouble = String(result.data?.trouble ?? 'That did not work.');
			else if (result.type !== 'redirect') trouble = 'That did not work.';
			else if (result.location.startsWith('/sign-in/code')) step = 'code';
			else end(true);
		} catch {
			trouble = 'The server cannot be reached. Try again in a moment.';
		} finally {
			busy = false;
		}
	}
</script>

<Modal title="Sign in again" aria-label="Sign in again" open={session.asked !== null} size="xs" dismissable={false} permanent>
	<form onsubmit={send} aria-label="Sign in again">
		<p class="mb-4">Your session has ended. What you just did waits, and is carried out once you are signed in.</p>
		{#if trouble}<p class="trouble mb-3" role="alert">{trouble}</p>{/if}
		{#if step === 'password'}
			<Label for="again-email">Mail address</Label>
			<Input id="again-email" type="email" autocomplete="username" required bind:value={email} />
			<Label for="again-password" class="mt-4">Password</Label>
			<Input id="again-password" data-autofocus type="password" autocomplete="current-password" required bind:value={password} />
		{:else}
			<Label for="again-code">Code of the moment, or a spare code</Label>
			<Input id="again-code" inputmode="numeric" autocomplete="one-time-code" required bind:value={code} />
		{/if}
		<p class="soft mt-3 text-sm">
			Without a password: <a href="/sign-in" target="_blank">sign in on a page of its own</a>, then
			<button type="button" class="quiet" onclick={() => end(true)}>go on here</button>.
		</p>
		<div class="mt-5 flex justify-end gap-3">
			<button type="button" class="quiet" onclick={() => end(false)}>Give up the change</button>
			<Button type="submit" disabled={busy}>Sign in</Button>
		</div>
	</form>
</Modal>
