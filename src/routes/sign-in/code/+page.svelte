<script lang="ts">
	import { Button, Input, Label } from 'flowbite-svelte';
	import { accountWords as account } from '$lib/ui/parts/words';
	import SignInFrame from '$lib/ui/people/SignInFrame.svelte';
	let { form } = $props();
</script>

<SignInFrame heading={account('codeHead')}>
	<p class="soft">{account('codeWords')}</p>
	{#if form?.trouble}<p class="trouble" role="alert">{form.trouble}</p>{/if}
	<form method="POST">
		<Label for="code">{account('code')}</Label>
		<Input id="code" name="code" autocomplete="one-time-code" required maxlength={40} />
		<Button type="submit" class="mt-5 w-full">{account('goOn')}</Button>
	</form>
	<p><a href="/sign-in">{account('beginAgain')}</a></p>
</SignInFrame>
