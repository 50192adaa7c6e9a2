<!-- Where they came from and on what, as lines with their numbers. -->
<script lang="ts">
	import type { Device } from '#core/readership/counting';
	import type { SourceFigures } from '$lib/server/readership/reports/report';
	import TakeAway from './TakeAway.svelte';
	let {
		sources,
		devices,
		report
	}: {
		sources: readonly SourceFigures[];
		devices: readonly { readonly device: Device; readonly n: number }[];
		/** Its address below `/api/v1/readership/`. */
		report: string;
	} = $props();
	const deviceWords: Record<Device, string> = { computer: 'Computers', tablet: 'Tablets', phone: 'Phones', other: 'Other devices' };
	const kindWords: Record<SourceFigures['kind'], string> = { page: '', desk: '', outside: 'another website', direct: '', news: '', key: 'by key' };
	const both = (s: SourceFigures) => s.openings + s.saves;
	const top = $derived(Math.max(1, ...sources.map(both)));
	const all = $derived(devices.reduce((sum, d) => sum + d.n, 0));
</script>

<section>
	<h2>
		They came by {#if sources.length}<span class="tools"><TakeAway {report} table="sources" /></span>{/if}
	</h2>
	{#each sources as source (source.kind + source.name + source.page)}
		<p class="source">
			<span
				>{source.name}{#if kindWords[source.kind]}<small>{kindWords[source.kind]}</small>{/if}</span
			><b>{both(source)}</b><i class={source.kind} style="width:{(100 * both(source)) / top}%"></i>
		</p>
	{:else}<p class="soft">Nobody came.</p>{/each}
	{#if all}<p class="devices soft">
			{#each devices as d, i (d.device)}{i ? ' · ' : ''}<span>{deviceWords[d.device]} {Math.round((100 * d.n) / all)} %</span>{/each}
		</p>{/if}
</section>

<style>
	.source {
		display: grid;
		grid-template-columns: 1fr auto;
		border-top: 1px solid var(--line);
		padding: 6px 0 7px;
	}
	.source span {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.source small {
		color: var(--ink-soft);
		margin-left: 8px;
	}
	.source b {
		font-family: var(--title);
	}
	.source i {
		height: 4px;
		background: var(--verdigris);
		margin-top: 3px;
	}
	.source i.key {
		background: var(--brass-bright);
	}
	.devices {
		border-top: 1px solid var(--line);
		padding-top: 7px;
		font-size: 13px;
	}
	.devices span {
		white-space: nowrap;
	}
</style>
