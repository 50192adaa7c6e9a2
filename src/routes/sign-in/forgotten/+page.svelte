<script lang="ts">
	import { Button, Input, Label } from 'flowbite-svelte';
	import SignInFrame from '$lib/ui/people/SignInFrame.svelte';
	let { form } = $props();
	const said = $derived(form as { trouble?: string; email?: string; sent?: boolean } | null);
</script>

<SignInFrame heading={said?.sent ? 'Look into your mail' : 'A new password'}>
	{#if said?.sent}
		<p role="status">If {said.email} is known here, a mail is on its way to it, by which a new password is chosen within a quarter of an hour.</p>
		<p class="soft">Nothing came? Look among unwanted mail, or <a href="/sign-in/forgotten">ask again</a>.</p>
	{:else}
		{#if said?.trouble}<p class="trouble" role="alert">{said.trouble}</p>{/if}
		<form method="POST">
			<Label for="email">E-mail address</Label>
			<Input id="email" name="email" type="email" autocomplete="username" required value={said?.email ?? ''} />
			<Button type="submit" class="mt-5 w-full">Mail me the way</Button>
		</form>
		<p><a href="/sign-in">Back to signing in</a></p>
	{/if}
</SignInFrame>
