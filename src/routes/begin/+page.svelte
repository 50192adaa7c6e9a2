<!-- The first visit to an empty site. -->
<script lang="ts">
	import { Button, Input, Label, Select } from 'flowbite-svelte';
	import { onMount } from 'svelte';
	let { data, form } = $props();
	// svelte-ignore state_referenced_locally
	let zone = $state(form?.zone ?? 'UTC');
	const zones = $derived(data.zones.map((value) => ({ value, name: value.replaceAll('_', ' ') })));
	/** The name by which this browser knows a zone: it may be one that was given up. */
	const known = (name: string) => {
		try {
			return Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone;
		} catch {
			return null;
		}
	};
	onMount(() => {
		const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
		if (!form?.zone) zone = data.zones.find((name) => name === here) ?? data.zones.find((name) => known(name) === here) ?? zone;
	});
</script>

<svelte:head><title>Begin with Ianua</title></svelte:head>
<main>
	<svg width="44" height="48" viewBox="0 0 22 24" aria-hidden="true"><path d="M2 24V11a9 9 0 0 1 18 0v13h-4V11a5 5 0 0 0-10 0v13z" fill="#c9973b" /></svg>
	<h1>Begin with Ianua</h1>
	<p class="soft">The site is empty. Whoever started it fills this in and becomes its owner; nobody else can after that.</p>
	{#if form?.trouble}<p class="trouble mt-4" role="alert">{form.trouble}</p>{/if}
	<form method="POST">
		<Label for="code">The code that was printed at the start</Label>
		<Input id="code" name="code" required maxlength={40} autocomplete="one-time-code" autocapitalize="characters" spellcheck={false} placeholder="ABCD-2345" />
		<h2>The site</h2>
		<Label for="site">Its name</Label>
		<Input id="site" name="site" required maxlength={120} value={form?.site ?? ''} />
		<Label for="zone">Its time zone</Label>
		<Select id="zone" name="zone" items={zones} bind:value={zone} placeholder="" />
		<h2>You, its owner</h2>
		<Label for="name">Your name</Label>
		<Input id="name" name="name" required maxlength={120} autocomplete="name" value={form?.name ?? ''} />
		<Label for="email">Your e-mail address</Label>
		<Input id="email" name="email" type="email" required autocomplete="username" value={form?.email ?? ''} />
		<Label for="password">A password, at least {data.passwordLength.min} characters</Label>
		<Input id="password" name="password" type="password" required minlength={data.passwordLength.min} autocomplete="new-password" />
		<Button type="submit" class="mt-6 w-full">Begin</Button>
	</form>
</main>

<style>
	main {
		max-width: 440px;
		margin: 0 auto;
		padding: 6vh 20px 60px;
	}
	h1 {
		margin: 14px 0 6px;
		font-size: 30px;
	}
	h2 {
		margin: 22px 0 4px;
		font-size: 17px;
	}
	main :global(label) {
		display: block;
		margin: 12px 0 4px;
	}
</style>
