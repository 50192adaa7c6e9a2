<!-- What a word of the house means, beside the thing where somebody meets it first; said until it is understood, then never again. -->
<script lang="ts">
	import { page } from '$app/state';
	import { keepMet, meaningOf, type HouseWord } from '$lib/ui/help/house-words';
	import Button from './controls/Button.svelte';
	import { met } from './met.svelte';

	let { word }: { word: HouseWord } = $props();
	const known = $derived([...((page.data.met as readonly string[] | undefined) ?? []), ...met]);
</script>

{#if !known.includes(word)}
	<p class="met">
		{meaningOf(word)}
		<Button
			kind="quiet"
			onclick={() => {
				met.push(word);
				keepMet([...new Set([...known, word])]);
			}}>Understood</Button
		>
	</p>
{/if}

<style>
	.met {
		margin: 6px 0 8px;
		padding: 6px 10px;
		border-inline-start: 3px solid var(--brass-bright);
		background: var(--brass-wash);
		color: var(--ink);
		font: 400 13px/1.45 var(--body);
	}
</style>
