<script lang="ts">
	import Entries from '$lib/ui/readership/Entries.svelte';
	import Report from '$lib/ui/readership/Report.svelte';
	let { data } = $props();
</script>

<svelte:head><title>Readership of {data.document.title}, {data.site.name}</title></svelte:head>
<Report title={data.document.title} note={data.document.sentence} report={data.report} lengths={data.lengths}>
	{#snippet aside()}<p class="mt-4"><a href="/desk/documents/{data.document.slug}">Open its sheet</a></p>{/snippet}
	<Entries entries={data.entries} of={data.of} zone={data.site.zone} />
</Report>
