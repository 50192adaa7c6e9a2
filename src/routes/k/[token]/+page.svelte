<!-- A key that wants its password. -->
<script lang="ts">
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	let { data, form } = $props();
</script>

<svelte:head><title>A key, {data.site.name}</title><meta name="robots" content="noindex" /></svelte:head>
<main>
	<DoorMark position="keyed" height={64} />
	<h1>This key wants its password</h1>
	<p>Whoever gave you this address gave you a password with it, or can tell you.</p>
	{#if form?.trouble}<p class="trouble" role="alert">{form.trouble}</p>{/if}
	<form method="POST">
		<label>Password <input class="field" type="password" name="password" required autocomplete="off" maxlength="200" /></label>
		<button class="btn main">Open</button>
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
