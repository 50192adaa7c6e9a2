<script lang="ts">
	import { Button, Input, Label } from 'flowbite-svelte';
	import SignInFrame from '$lib/ui/people/SignInFrame.svelte';
	let { data, form } = $props();
	const said = $derived(form as { trouble?: string; email?: string; sent?: boolean } | null);
	let byLink = $state(false);
	let email = $derived(said?.email ?? '');
	const to = $derived(data.to ? `&to=${encodeURIComponent(data.to)}` : '');
</script>

<SignInFrame heading={said?.sent ? 'Look into your mail' : 'Sign in'} navigation={data.navigation}>
	{#if said?.sent}
		<p role="status">If {said.email} is known here, a link is on its way to it. It signs you in once, within a quarter of an hour.</p>
		<p class="soft">Nothing came? Look among unwanted mail, or <a href="/sign-in">begin again</a>.</p>
	{:else}
		{#if data.me}<p class="soft">You are signed in as {data.me.name}. Sign in as somebody else, or <a href={data.to ?? '/me'}>go on</a>.</p>{/if}
		{#if data.over && !said}<p class="trouble" role="alert">That link has been used or is too old. Ask for a new one.</p>{/if}
		{#if said?.trouble}<p class="trouble" role="alert">{said.trouble}</p>{/if}
		<form method="POST" action="?/{byLink ? 'link' : 'in'}{to}">
			<Label for="email">E-mail address</Label>
			<Input id="email" name="email" type="email" autocomplete="username" required bind:value={email} />
			{#if !byLink}
				<Label for="password" class="mt-4">Password</Label>
				<Input id="password" name="password" type="password" autocomplete="current-password" required />
			{/if}
			<Button type="submit" class="mt-5 w-full">{byLink ? 'Mail me a link' : 'Sign in'}</Button>
			{#if !byLink}<noscript><Button type="submit" formaction="?/link" formnovalidate class="mt-2 w-full">Mail me a link instead</Button></noscript>{/if}
		</form>
		<p class="ways">
			<button class="quiet" onclick={() => (byLink = !byLink)}>{byLink ? 'With a password' : 'By a mailed link'}</button>
			<a href="/sign-in/forgotten">Forgotten the password</a>
		</p>
	{/if}
</SignInFrame>

<style>
	.ways {
		display: flex;
		justify-content: space-between;
		gap: 12px;
		margin-top: 18px;
		font-size: 14px;
	}
	.quiet {
		font-size: 14px;
	}
</style>
