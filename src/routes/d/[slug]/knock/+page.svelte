<!-- Asking to be let in: a sentence and an address. -->
<script lang="ts">
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';
	let { data, form } = $props();
	const said = $derived(form as { done?: true; trouble?: string; email?: string; words?: string } | null);
</script>

<svelte:head><title>Knock, {data.site.name}</title><meta name="robots" content="noindex" /></svelte:head>
<SiteFrame site={data.site} me={data.me}>
	<div class="knock">
		<DoorMark position="keyed" height={64} />
		{#if said?.done}
			<h1>Your knock is passed on</h1>
			<p role="status">Somebody of the staff answers by mail, whether you are let in or not.</p>
			<a class="btn" href="/">To the front page</a>
		{:else}
			<h1>Ask to be let in</h1>
			<p class="soft">{data.reason}</p>
			{#if said?.trouble}<p class="trouble" role="alert">{said.trouble}</p>{/if}
			<form method="POST">
				<label
					>Why you would like to come in
					<textarea class="field" name="words" rows="3" required maxlength="600">{said?.words ?? ''}</textarea></label
				>
				<label
					>Your e-mail address <input
						class="field"
						type="email"
						name="email"
						required
						maxlength="320"
						autocomplete="email"
						value={said?.email ?? data.email}
					/></label
				>
				<button class="btn main">Knock</button>
			</form>
		{/if}
	</div>
</SiteFrame>

<style>
	.knock {
		max-width: 460px;
		margin: 5vh auto;
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
		gap: 14px;
		margin-top: 16px;
	}
	label {
		display: grid;
		gap: 3px;
	}
	.field {
		font-size: 16px;
	}
	input.field,
	.btn {
		height: 42px;
	}
</style>
