<script lang="ts">
	import { Button, Input, Label } from 'flowbite-svelte';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';
	let { data, form } = $props();
</script>

<svelte:head><title>Sign in, {data.site.name}</title><meta name="robots" content="noindex" /></svelte:head>
<SiteFrame name={data.site.name} navigation={data.navigation} me={data.me}>
	<div class="box">
		<h1>Sign in</h1>
		{#if data.me}<p class="soft mt-2">You are signed in as {data.me.name}. Sign in as somebody else, or <a href={data.to ?? '/me'}>go on</a>.</p>{/if}
		{#if form?.trouble}<p class="trouble mt-4" role="alert">{form.trouble}</p>{/if}
		<form method="POST" action="?/in{data.to ? `&to=${encodeURIComponent(data.to)}` : ''}">
			<Label for="email">E-mail address</Label>
			<Input id="email" name="email" type="email" autocomplete="username" required value={form?.email ?? ''} />
			<Label for="password" class="mt-4">Password</Label>
			<Input id="password" name="password" type="password" autocomplete="current-password" required />
			<Button type="submit" class="mt-5 w-full">Sign in</Button>
		</form>
	</div>
</SiteFrame>

<style>
	.box {
		max-width: 380px;
		margin: 4vh auto 0;
	}
	form {
		margin-top: 20px;
	}
	form :global(label) {
		display: block;
		margin-bottom: 4px;
	}
	h1 {
		font-size: 28px;
	}
</style>
