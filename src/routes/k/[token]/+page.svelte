<!-- A key that wants its password. -->
<script lang="ts">
	import { accountWords as account, words } from '$lib/ui/parts/words';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	let { data, form } = $props();
</script>

<svelte:head><title>{account('aKey')}, {data.site.name}</title><meta name="robots" content="noindex" /></svelte:head>
<main>
	<DoorMark position="keyed" height={64} />
	<h1>{words('keyPassword')}</h1>
	<p>{account('keyWords')}</p>
	{#if form?.trouble}<p class="trouble" role="alert">{form.trouble}</p>{/if}
	<form method="POST">
		<label>{words('password')} <input class="field" type="password" name="password" required autocomplete="off" maxlength="200" /></label>
		<button class="btn main">{account('openIt')}</button>
	</form>
</main>

<style>
	main {
		max-width: 420px;
		margin: 9vh auto;
		padding: 0 16px;
		font-size: 16px;
	}
	h1 {
		margin-top: 14px;
	}
	p {
		margin: 10px 0;
	}
	form {
		display: grid;
		gap: 12px;
	}
	label {
		display: grid;
		gap: 3px;
	}
	.field {
		font-size: 16px;
		height: 42px;
	}
</style>
