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
			<table>
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
	table {
		width: 100%;
		border-collapse: collapse;
		background: var(--sheet);
		border: 1px solid var(--line);
	}
	th {
		font: 500 12px var(--body);
		color: var(--ink-soft);
		background: var(--sunk);
		padding: 4px 12px;
		text-align: right;
	}
	td {
		border-top: 1px solid var(--line);
		padding: 7px 12px;
		text-align: right;
	}
	th:first-child,
	td:first-child {
		text-align: left;
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
