<!-- One part of a long screen, with the heading and the address by which its list of parts leads to it. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	let {
		id,
		title,
		children
	}: {
		/** Its place in the address, after the number sign. */
		id: string;
		title: string;
		children: Snippet;
	} = $props();
</script>

<section {id} aria-labelledby="{id}-title">
	<h2 id="{id}-title">{title}</h2>
	{@render children()}
</section>

<style>
	section {
		padding: 14px 0 22px;
		border-top: 1px solid var(--line);
		scroll-margin-top: calc(var(--lintel) + 8px);
	}
	h2 {
		font-size: 18px;
		margin-bottom: 8px;
	}
</style>
