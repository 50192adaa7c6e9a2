<script lang="ts">
	import { newsWords as news } from '$lib/ui/parts/words';
	import Archway from '$lib/ui/placing/Archway.svelte';
	let { data, form } = $props();
</script>

<svelte:head><title>{news('endAll')}, {data.site.name}</title><meta name="robots" content="noindex" /></svelte:head>
<Archway heading={news('endAll')} door="ajar">
	{#if form?.ended}<p role="status">{news('ended')}</p>
	{:else}
		<p>{news('endWords')}</p>
		<form method="POST"><button class="btn main">{news('end')}</button></form>
	{/if}
</Archway>
