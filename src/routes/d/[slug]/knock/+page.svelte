<!-- Asking to be let in: a sentence and an address. -->
<script lang="ts">
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import { words } from '$lib/ui/parts/words';
	import SiteFrame from '$lib/ui/placing/SiteFrame.svelte';
	let { data, form } = $props();
	const said = $derived(form as { done?: true; trouble?: string; email?: string; words?: string } | null);
</script>

<svelte:head><title>{words('knockNow')}, {data.site.name}</title><meta name="robots" content="noindex" /></svelte:head>
<SiteFrame site={data.site} me={data.me}>
	<div class="knock">
		<DoorMark position="keyed" height={64} />
		{#if said?.done}
			<h1>{words('knocked')}</h1>
			<p role="status">{words('knockedWords')}</p>
			<a class="btn" href="/">{words('toFront')}</a>
		{:else}
			<h1>{words('askIn')}</h1>
			<p class="soft">{data.reason}</p>
			{#if said?.trouble}<p class="trouble" role="alert">{said.trouble}</p>{/if}
			<form method="POST">
				<label
					>{words('whyIn')}
					<textarea class="field" name="words" rows="3" required maxlength="600">{said?.words ?? ''}</textarea></label
				>
				<label
					>{words('yourMail')}
					<input class="field" type="email" name="email" required maxlength="320" autocomplete="email" value={said?.email ?? data.email} /></label
				>
				<button class="btn main">{words('knockNow')}</button>
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
