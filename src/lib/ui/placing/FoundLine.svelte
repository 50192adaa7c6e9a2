<!-- Words that were found, in their line, with the page on which they stand. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	let { stretches, where }: { stretches: readonly { readonly text: string; readonly marked: boolean }[]; where?: Snippet } = $props();
</script>

<p>
	{#each stretches as stretch, i (i)}{#if stretch.marked}<mark>{stretch.text}</mark>{:else}{stretch.text}{/if}{/each}
	{@render where?.()}
</p>

<style>
	p {
		margin-top: 6px;
		padding-inline-start: 12px;
		border-inline-start: 3px solid var(--brass-bright);
	}
	p :global(a) {
		white-space: nowrap;
	}
</style>
