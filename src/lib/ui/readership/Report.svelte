<!-- A report: the answer as a sentence, day by day, where they came from. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import { page } from '$app/state';
	import { counted } from '#core/access/reach';
	import type { Report } from '$lib/server/readership/service';
	import DayChart from './DayChart.svelte';

	let {
		title,
		note,
		report,
		lengths,
		aside,
		children
	}: { title: string; note: string; report: Report; lengths: readonly number[]; aside?: Snippet; children: Snippet } = $props();
	let asTable = $state(false);
	const top = $derived(Math.max(1, ...report.sources.map((s) => s.openings)));
	function href(days: number) {
		const params = new URLSearchParams(page.url.searchParams);
		params.set('days', String(days));
		params.delete('cursor');
		return `?${params}`;
	}
</script>

<div class="hall">
	<div class="head">
		<h1>{title}</h1>
		<p class="soft">{note}</p>
		<span class="lengths"
			>{#each lengths as days (days)}<a class="pill" class:on={report.length === days} href={href(days)} data-sveltekit-noscroll>{days} days</a>{/each}</span
		>
	</div>
	<p class="answer" data-testid="answer">
		{#each report.answer as piece, i (i)}<span class={piece.tone ?? ''}>{piece.text}</span>{/each}
	</p>
	{#if report.staff.openings || report.staff.saves}<p class="soft apart">
			Staff stand apart and count in none of this: {counted(report.staff.openings, 'opening', 'openings')}, {counted(
				report.staff.saves,
				'copy saved',
				'copies saved'
			)}.
		</p>{/if}
	<div class="two">
		<section>
			<h2>Day by day <button class="quiet" aria-pressed={asTable} onclick={() => (asTable = !asTable)}>{asTable ? 'As a chart' : 'As a table'}</button></h2>
			{#if asTable}
				<div class="scroll">
					<table class="rows">
						<thead><tr><th>Day</th><th class="n">Openings</th><th class="n">Copies saved</th></tr></thead><tbody
							>{#each [...report.days].reverse() as d (d.day)}<tr><td>{d.day}</td><td class="n">{d.openings}</td><td class="n">{d.saves}</td></tr>{/each}</tbody
						>
					</table>
				</div>
			{:else}<DayChart days={report.days} />{/if}
		</section>
		<section>
			<h2>They came by</h2>
			{#each report.sources as source (source.kind + source.name)}
				<p class="source"><span>{source.name}</span><b>{source.openings}</b><i style="width:{(100 * source.openings) / top}%"></i></p>
			{:else}<p class="soft">Nobody came yet.</p>{/each}
			{@render aside?.()}
		</section>
	</div>
	{@render children()}
</div>

<style>
	.hall {
		padding: 18px 22px 40px;
		max-width: 1360px;
		margin: 0 auto;
	}
	.head {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 6px 12px;
	}
	.lengths {
		margin-left: auto;
		display: flex;
		gap: 6px;
	}
	.answer {
		font: 400 20px/1.35 var(--title);
		margin: 14px 0 4px;
		max-width: 62ch;
	}
	.answer :global(.strong) {
		color: var(--verdigris);
		font-weight: 650;
	}
	.answer :global(.wrong) {
		color: var(--brick);
	}
	.apart {
		margin-bottom: 6px;
	}
	.two {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 350px;
		gap: 30px;
		margin: 14px 0 22px;
	}
	.hall :global(h2) {
		font-size: 17px;
		display: flex;
		align-items: baseline;
		gap: 12px;
		margin-bottom: 8px;
	}
	.hall :global(h2 .quiet) {
		font: 500 13px var(--body);
		margin-left: auto;
	}
	.source {
		display: grid;
		grid-template-columns: 1fr auto;
		border-top: 1px solid var(--line);
		padding: 7px 0 8px;
	}
	.source span {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.source b {
		font-family: var(--title);
	}
	.source i {
		height: 4px;
		background: var(--verdigris);
		margin-top: 3px;
	}
	.scroll {
		max-height: 240px;
		overflow: auto;
		border: 1px solid var(--line);
	}
	th {
		text-align: left;
		font: 500 12px var(--body);
		color: var(--ink-soft);
		background: var(--sunk);
		padding: 4px 12px;
		position: sticky;
		top: 0;
	}
	@media (max-width: 900px) {
		.two {
			grid-template-columns: 1fr;
		}
	}
</style>
