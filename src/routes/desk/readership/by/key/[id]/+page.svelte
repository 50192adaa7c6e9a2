<!-- What was done with one key. -->
<script lang="ts">
	import { page } from '$app/state';
	import OneReader from '$lib/ui/readership/OneReader.svelte';
	let { data } = $props();
</script>

<svelte:head><title>{data.report.name}, readership, {data.site.name}</title></svelte:head>
<OneReader
	report={data.report}
	entries={data.entries}
	zone={data.site.zone}
	note="key"
	address="keys/{page.params.id}"
	way={{ href: '/desk/readership', words: 'Readership' }}
/>
