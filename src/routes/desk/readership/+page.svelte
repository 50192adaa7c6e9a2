<script lang="ts">
	import Entries from '$lib/ui/readership/Entries.svelte';
	import Report from '$lib/ui/readership/Report.svelte';
	let { data } = $props();
</script>

<svelte:head><title>Readership, {data.site.name}</title></svelte:head>
<Report title="Readership" note="all documents" report={data.report} lengths={data.lengths}>
	{#if data.documents.length}
		<section class="mb-6">
			<h2>By document</h2>
			<table class="rows">
				<thead><tr><th>Document</th><th>Readers</th><th>Openings</th><th>Copies saved</th><th>Turned away</th></tr></thead>
				<tbody>
					{#each data.documents as d (d.slug)}<tr
							><td><a href="/desk/readership/{d.slug}">{d.title}</a></td><td>{d.readers}</td><td>{d.openings}</td><td>{d.saves}</td><td class:wrong={d.refusals}
								>{d.refusals || ''}</td
							></tr
						>{/each}
				</tbody>
			</table>
		</section>
	{/if}
	<Entries entries={data.entries} of={data.of} zone={data.site.zone} withTitle />
</Report>

<style>
	th:not(:first-child),
	td:not(:first-child) {
		text-align: right;
	}
	td a {
		font: 600 14.5px var(--title);
		color: var(--ink);
		text-decoration: none;
	}
	.wrong {
		color: var(--brick);
	}
</style>
