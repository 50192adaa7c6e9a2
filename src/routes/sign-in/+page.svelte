<script lang="ts">
	import { Button, Input, Label } from 'flowbite-svelte';
	import { PasskeyForm } from '$lib/ui/people/passkey.svelte';
	import { accountWords as account, words } from '$lib/ui/parts/words';
	import SignInFrame from '$lib/ui/people/SignInFrame.svelte';
	let { data, form } = $props();
	const said = $derived(form as { trouble?: string; email?: string; sent?: boolean } | null);
	let byLink = $state(false);
	let email = $derived(said?.email ?? '');
	const passkey = new PasskeyForm(() => data.passkeys, 'use');
	const to = $derived(data.to ? `&to=${encodeURIComponent(data.to)}` : '');
</script>

<SignInFrame heading={words(said?.sent ? 'lookIntoMail' : 'signIn')}>
	{#if said?.sent}
		<p role="status">{words('linkSent', { email: said.email ?? '' })}</p>
		<p class="soft">{words('nothingCame')} <a href="/sign-in">{words('beginAgain')}</a>.</p>
	{:else}
		{#if data.me}<p class="soft">{words('signedInAs', { name: data.me.name })} <a href={data.to ?? '/me'}>{words('goOn')}</a>.</p>{/if}
		{#if data.out && !data.me && !said}
			<p class="say" role="status">{words('outHere')}</p>
			<p><a href="/sign-in/with/{data.out.id}/out" data-sveltekit-reload data-sveltekit-preload-data="off">{words('outToo', { name: data.out.name })}</a></p>
		{:else if data.refused && !said}
			<p class="trouble" role="alert">{words(data.why, { name: data.refused })}</p>
		{:else if data.over && !said}<p class="trouble" role="alert">{words('linkOver')}</p>{/if}
		{#if data.providers.length}
			<ul class="providers">
				{#each data.providers as provider (provider.id)}
					<li>
						<a href="/sign-in/with/{provider.id}{data.to ? `?to=${encodeURIComponent(data.to)}` : ''}" data-sveltekit-reload
							>{words('signInWith', { name: provider.name })}</a
						>
					</li>
				{/each}
			</ul>
			<p class="or soft">{words('or')}</p>
		{/if}
		{#if data.confirm && !said}<p class="say" role="status">{account('confirmByMail')}</p>{/if}
		{#if passkey.trouble || said?.trouble}<p class="trouble" role="alert">{passkey.trouble || said?.trouble}</p>{/if}
		<form method="POST" action="?/{byLink ? 'link' : 'in'}{to}">
			<Label for="email">{words('email')}</Label>
			<Input id="email" name="email" type="email" autocomplete="username" required bind:value={email} />
			{#if !byLink}
				<Label for="password" class="mt-4">{words('password')}</Label>
				<Input id="password" name="password" type="password" autocomplete="current-password" required />
			{/if}
			<Button type="submit" class="mt-5 w-full text-base">{words(byLink ? 'mailLink' : 'signIn')}</Button>
			{#if !byLink}<noscript
					><Button type="submit" formaction="?/link" formnovalidate class="mt-2 w-full text-base">{words('mailLinkInstead')}</Button></noscript
				>{/if}
		</form>
		{#if passkey.usable}
			<form method="POST" action="?/passkey{to}" bind:this={passkey.form}>
				<input type="hidden" name="response" value={passkey.response} />
				<Button color="alternative" class="mt-2 w-full text-base" onclick={passkey.press}>{words('byPasskey')}</Button>
			</form>
		{/if}
		<p class="ways">
			<button class="quiet" onclick={() => (byLink = !byLink)}>{words(byLink ? 'withPassword' : 'byLink')}</button>
			<a href="/sign-in/forgotten">{words('forgotten')}</a>
		</p>
	{/if}
</SignInFrame>

<style>
	.providers {
		display: grid;
		gap: 8px;
		margin-top: 18px;
	}
	.providers a {
		display: block;
		padding: 8px 14px;
		border: 1px solid currentColor;
		border-radius: 3px;
		text-align: center;
		text-decoration: none;
	}
	.providers a:hover {
		text-decoration: underline;
	}
	.or {
		text-align: center;
		margin: 14px 0 2px;
	}
	.ways {
		display: flex;
		justify-content: space-between;
		gap: 12px;
		margin-top: 18px;
		font-size: 14px;
	}
	.quiet {
		font-size: 14px;
		text-decoration: underline;
		text-underline-offset: 3px;
	}
</style>
