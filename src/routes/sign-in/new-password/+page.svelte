<script lang="ts">
	import { Button, Input, Label } from 'flowbite-svelte';
	import SignInFrame from '$lib/ui/people/SignInFrame.svelte';
	let { data, form } = $props();
	const said = $derived(form as { trouble?: string; done?: boolean } | null);
</script>

<SignInFrame heading={said?.done ? 'Your password is changed' : 'Choose a new password'}>
	{#if said?.done}
		<p role="status">Wherever you were signed in before, you are no longer.</p>
		<p><a class="btn main" href="/sign-in">Sign in</a></p>
	{:else}
		{#if said?.trouble}<p class="trouble" role="alert">{said.trouble} <a href="/sign-in/forgotten">Ask for a new one</a></p>{/if}
		<form method="POST">
			<Label for="password">New password, at least {data.passwordLength.min} characters</Label>
			<Input id="password" name="password" type="password" autocomplete="new-password" required minlength={data.passwordLength.min} />
			<Button type="submit" class="mt-5 w-full">Set the password</Button>
		</form>
	{/if}
</SignInFrame>
