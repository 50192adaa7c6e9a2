<!-- A catalogue: words, and the documents that it lists. -->
<script lang="ts">
	import type { SeenList } from '$lib/server/placing/contract';
	import ListBody from './ListBody.svelte';
	let { title, lead, list, reading, query }: { title: string; lead: string; list: SeenList; reading: string | null; query: string } = $props();
</script>

<h1>{title}</h1>
{#if lead}<p class="lead">{lead}</p>{/if}
<ListBody seen={list} {reading} {query} />

<style>
	h1 {
		font-size: clamp(26px, 5vw, 36px);
	}
	.lead {
		margin-top: 8px;
		max-width: 720px;
		font-size: 1.06em;
	}
</style>
