<!-- A catalogue: the documents that it lists. -->
<script lang="ts">
	import type { SeenList } from '$lib/server/placing/contract';
	import ListBody from './ListBody.svelte';
	let { list, reading, query }: { list: SeenList; reading: string | null; query: string } = $props();
</script>

<ListBody seen={list} {reading} {query} />
