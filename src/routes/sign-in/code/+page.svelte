<script lang="ts">
	import { Button, Input, Label } from 'flowbite-svelte';
	import SignInFrame from '$lib/ui/people/SignInFrame.svelte';
	let { form } = $props();
</script>

<SignInFrame heading="The code of the moment">
	<p class="soft">Your account asks for the six digits that your code program shows now. Without it at hand, give one of your spare codes.</p>
	{#if form?.trouble}<p class="trouble" role="alert">{form.trouble}</p>{/if}
	<form method="POST">
		<Label for="code">Code</Label>
		<Input id="code" name="code" autocomplete="one-time-code" required maxlength={40} />
		<Button type="submit" class="mt-5 w-full">Go on</Button>
	</form>
	<p><a href="/sign-in">Begin again</a></p>
</SignInFrame>
