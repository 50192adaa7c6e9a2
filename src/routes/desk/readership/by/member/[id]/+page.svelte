<!-- One member's reading. -->
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
	note="member"
	address="members/{page.params.id}"
	way={{ href: `/desk/people?person=${page.params.id}`, words: 'People' }}
/>
