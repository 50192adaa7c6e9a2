<script lang="ts">
	import { Button, Input, Label } from 'flowbite-svelte';
	import { accountWords as account, words } from '$lib/ui/parts/words';
	import SignInFrame from '$lib/ui/people/SignInFrame.svelte';
	let { data, form } = $props();
	const said = $derived(form as { trouble?: string; done?: boolean } | null);
</script>

<SignInFrame heading={account(said?.done ? 'passwordChanged' : 'choosePassword')}>
	{#if said?.done}
		<p role="status">{account('elsewhereOut')}</p>
		<p><a class="btn main" href="/sign-in">{words('signIn')}</a></p>
	{:else}
		{#if said?.trouble}<p class="trouble" role="alert">{said.trouble} <a href="/sign-in/forgotten">{account('askNew')}</a></p>{/if}
		<form method="POST">
			<Label for="password">{account('newPassword', { count: data.passwordLength.min })}</Label>
			<Input id="password" name="password" type="password" autocomplete="new-password" required minlength={data.passwordLength.min} />
			<Button type="submit" class="mt-5 w-full">{account('setPassword')}</Button>
		</form>
	{/if}
</SignInFrame>
