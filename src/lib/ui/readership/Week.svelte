<!-- When in the week people read: a dot for each clock hour, as large as there was reading; the table says the same in numbers. -->
<script lang="ts">
	import { Button } from '$lib/ui/parts/controls';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { counted } from '#core/text/list';
	import TakeAway from './TakeAway.svelte';
	let { week }: { week: readonly (readonly number[])[] } = $props();
	const days = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
	let asTable = $state(false);
	const top = $derived(Math.max(1, ...week.flat()));
	const busiest = $derived.by(() => {
		let [day, hour] = [0, 0];
		week.forEach((hours, d) => hours.forEach((n, h) => n > week[day]![hour]! && ([day, hour] = [d, h])));
		return week[day]![hour]! > 0 ? `${days[day]} from ${hour} to ${hour + 1}` : null;
	});
</script>

<section>
	<h2>
		In the week {#if busiest}<small>most on {busiest}</small>{/if}<span class="tools"
			><Button kind="quiet" aria-pressed={asTable} onclick={() => (asTable = !asTable)}>{asTable ? 'As a chart' : 'As a table'}</Button><TakeAway
				report="overview"
				table="hours"
			/></span
		>
	</h2>
	{#if asTable}
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<div class="scroll" tabindex="0" role="region" aria-label="In the week">
			<Table class="rows">
				<TableHead
					><TableHeadCell>Day</TableHeadCell>{#each { length: 24 } as _, h (h)}<TableHeadCell class="n">{h}</TableHeadCell>{/each}</TableHead
				>
				<TableBody
					>{#each week as hours, d (d)}<TableBodyRow
							><TableBodyCell>{days[d]}</TableBodyCell>{#each hours as n, h (h)}<TableBodyCell class="n">{n || ''}</TableBodyCell>{/each}</TableBodyRow
						>{/each}</TableBody
				>
			</Table>
		</div>
	{:else}
		<svg viewBox="0 0 350 150" role="img" aria-label={busiest ? `Read most on ${busiest}. The table has the numbers.` : 'Nothing was read.'}>
			{#each week as hours, d (d)}
				<text x="0" y={15 + d * 18}>{days[d]!.slice(0, 2)}</text>
				{#each hours as n, h (h)}
					<circle cx={30 + h * 13.6} cy={11 + d * 18} r={n ? 1.4 + 5 * Math.sqrt(n / top) : 0.8} class:none={!n}
						><title>{days[d]}, {h} to {h + 1}: {counted(n, 'opening or copy', 'openings and copies')}</title></circle
					>
				{/each}
			{/each}
			{#each [0, 6, 12, 18, 23] as h (h)}<text x={30 + h * 13.6} y="145" text-anchor="middle">{h}</text>{/each}
		</svg>
	{/if}
</section>

<style>
	svg {
		width: 100%;
		max-width: 420px;
		height: auto;
	}
	text {
		font: 11.5px var(--body);
		fill: var(--ink-soft);
	}
	circle {
		fill: var(--verdigris);
	}
	circle.none {
		fill: var(--edge);
	}
	.scroll :global(.n) {
		text-align: right;
		padding: 4px 6px;
	}
</style>
