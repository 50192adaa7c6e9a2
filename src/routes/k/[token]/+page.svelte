<!-- A key that wants its password. -->
<script lang="ts">
	import { accountWords as account, words } from '$lib/ui/parts/words';
	import Archway from '$lib/ui/placing/Archway.svelte';
	let { data, form } = $props();
</script>

<svelte:head><title>{account('aKey')}, {data.site.name}</title><meta name="robots" content="noindex" /></svelte:head>
<Archway heading={words('keyPassword')}>
	<p>{account('keyWords')}</p>
	{#if form?.trouble}<p class="trouble" role="alert">{form.trouble}</p>{/if}
	<form method="POST">
		<label>{words('password')} <input class="field" type="password" name="password" required autocomplete="off" maxlength="200" /></label>
		<button class="btn main">{account('openIt')}</button>
	</form>
</Archway>
