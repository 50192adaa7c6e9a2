<!-- Asking to be let in: a sentence and an address. -->
<script lang="ts">
	import { words } from '$lib/ui/parts/words';
	import Archway from '$lib/ui/placing/Archway.svelte';
	let { data, form } = $props();
	const said = $derived(form as { done?: true; trouble?: string; email?: string; words?: string } | null);
</script>

<svelte:head><title>{words('knockNow')}, {data.site.name}</title><meta name="robots" content="noindex" /></svelte:head>
<Archway heading={words(said?.done ? 'knocked' : 'askIn')}>
	{#if said?.done}
		<p role="status">{words('knockedWords')}</p>
		<p><a class="btn" href="/">{words('toFront')}</a></p>
	{:else}
		<p class="soft">{data.reason}</p>
		{#if said?.trouble}<p class="trouble" role="alert">{said.trouble}</p>{/if}
		<form method="POST">
			<label>{words('whyIn')} <textarea class="field" name="words" rows="3" required maxlength="600">{said?.words ?? ''}</textarea></label>
			<label
				>{words('yourMail')}
				<input class="field" type="email" name="email" required maxlength="320" autocomplete="email" value={said?.email ?? data.email} /></label
			>
			<button class="btn main">{words('knockNow')}</button>
		</form>
	{/if}
</Archway>
