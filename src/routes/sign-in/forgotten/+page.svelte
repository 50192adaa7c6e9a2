<script lang="ts">
	import { Button, Input, Label } from 'flowbite-svelte';
	import { accountWords as account, words } from '$lib/ui/parts/words';
	import SignInFrame from '$lib/ui/people/SignInFrame.svelte';
	let { form } = $props();
	const said = $derived(form as { trouble?: string; email?: string; sent?: boolean } | null);
</script>

<SignInFrame heading={said?.sent ? words('lookIntoMail') : account('newPasswordHead')}>
	{#if said?.sent}
		<p role="status">{account('wayMailed', { email: said.email ?? '' })}</p>
		<p class="soft">{words('nothingCame')} <a href="/sign-in/forgotten">{account('askAgain')}</a>.</p>
	{:else}
		{#if said?.trouble}<p class="trouble" role="alert">{said.trouble}</p>{/if}
		<form method="POST">
			<Label for="email">{words('email')}</Label>
			<Input id="email" name="email" type="email" autocomplete="username" required value={said?.email ?? ''} />
			<Button type="submit" class="mt-5 w-full">{account('mailWay')}</Button>
		</form>
		<p><a href="/sign-in">{account('backToSignIn')}</a></p>
	{/if}
</SignInFrame>
