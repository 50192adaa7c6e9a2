<script lang="ts">
	import { Button } from 'flowbite-svelte';
	import { accountWords as account, words } from '$lib/ui/parts/words';
	import SignInFrame from '$lib/ui/people/SignInFrame.svelte';
	let { data } = $props();
</script>

<SignInFrame heading={words('signIn')}>
	<p>{account('openLink')}</p>
	<!-- the address is no page of ours: kit shall leave the form to the browser -->
	<form method="GET" action="/api/auth/magic-link/verify" data-sveltekit-reload>
		<input type="hidden" name="token" value={data.token} />
		<input type="hidden" name="callbackURL" value="/me" />
		<input type="hidden" name="errorCallbackURL" value="/sign-in" />
		<Button type="submit" class="w-full">{words('signIn')}</Button>
	</form>
</SignInFrame>
