<!-- A station of the passage on the sheet: its arch, its name, what stands beside the name, and what belongs to it. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { HouseWord as Word } from '$lib/ui/help/house-words';
	import FirstMet from '$lib/ui/parts/FirstMet.svelte';
	import HouseWord from '$lib/ui/parts/HouseWord.svelte';
	import Arch, { type ArchState } from '$lib/ui/parts/Arch.svelte';

	let {
		id,
		name,
		about,
		word,
		state,
		link,
		children
	}: {
		id: string;
		name: string;
		about: string;
		/** The word of the house that it is called by. */ word?: Word;
		state: ArchState;
		/** What leads on from here. */ link?: Snippet;
		children: Snippet;
	} = $props();
</script>

<section class="station" {id} tabindex="-1">
	<Arch {state} size={30} />
	<div class="what">
		<h3>
			{#if word}<b><HouseWord {word} shown={name} /></b>{:else}{name}{/if} <span>{about}</span>{@render link?.()}
		</h3>
		{#if word}<FirstMet {word} />{/if}
		{@render children()}
	</div>
</section>

<style>
	.station {
		display: grid;
		grid-template-columns: 34px minmax(0, 1fr);
		gap: 0 12px;
		position: relative;
		padding-top: 13px;
		outline-offset: 4px;
	}
	.station > :global(svg) {
		position: relative;
		z-index: 1;
		background: var(--sheet);
	}
	.station::before {
		content: '';
		position: absolute;
		left: 14px;
		top: 0;
		bottom: 0;
		border-left: 2px solid var(--line);
	}
	.station:last-child::before {
		bottom: auto;
		height: 20px;
	}
	h3 {
		font-size: 15.5px;
		display: flex;
		align-items: baseline;
		gap: 8px;
	}
	h3 b {
		font-weight: inherit;
	}
	h3 span {
		font: 400 12.5px var(--body);
		color: var(--ink-soft);
	}
	h3 > :global(:is(a, button)) {
		font: 400 13px var(--body);
		text-decoration: none;
		white-space: nowrap;
	}
	h3 > span + :global(:is(a, button)) {
		margin-left: auto;
	}
	.what > :global(:is(p, ul)) {
		margin-top: 3px;
	}
</style>
