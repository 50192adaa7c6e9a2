<!-- Readership of the whole site. -->
<script lang="ts">
	import { page } from '$app/state';
	import { counted } from '#core/text/list';
	import { durationWords } from '#core/readership/words';
	import SortedTable, { type Column } from '$lib/ui/parts/SortedTable.svelte';
	import Bars from '$lib/ui/readership/Bars.svelte';
	import Entries from '$lib/ui/readership/Entries.svelte';
	import Hall from '$lib/ui/readership/Hall.svelte';
	import Sources from '$lib/ui/readership/Sources.svelte';
	import Tell from '$lib/ui/readership/Tell.svelte';
	import TakeAway from '$lib/ui/readership/TakeAway.svelte';
	import Week from '$lib/ui/readership/Week.svelte';
	let { data } = $props();
	const report = $derived(data.report);
	const change = (d: { openings: number; saves: number; before: number }) => d.openings + d.saves - d.before;
	const signed = (n: number) => (n > 0 ? `+${n}` : n < 0 ? `−${-n}` : '±0');
	const kept = $derived(new URLSearchParams([...page.url.searchParams].filter(([n]) => ['days', 'from', 'until', 'by'].includes(n))).toString());
	const address = (slug: string) => `/desk/readership/${slug}${kept ? `?${kept}` : ''}`;
	const whole = $derived.by(() => {
		const params = new URLSearchParams(page.url.searchParams);
		params.set('all', '');
		return `?${params}`;
	});
	const itemsHref = $derived(`/api/v1/readership/items?format=tsv&from=${report.period.first}&until=${report.period.last}`);
	type Line = (typeof report.documents)[number];
	const columns: readonly Column<Line>[] = [
		{ title: 'Document', by: (d) => d.title, cell: titleCell },
		{ title: 'Readers', by: (d) => d.readers, number: true },
		{ title: 'Openings', by: (d) => d.openings, number: true },
		{ title: 'Saved', by: (d) => d.saves, number: true },
		{ title: 'Read for', by: (d) => d.seconds, cell: secondsCell, number: true },
		{ title: 'Turned away', by: (d) => d.refusals, cell: refusalsCell, number: true },
		{ title: 'Change', by: (d) => (d.before ? change(d) : null), cell: changeCell, number: true }
	];
</script>

<svelte:head><title>Readership, {data.site.name}</title></svelte:head>
{#snippet titleCell(d: Line)}<a class="title" href={address(d.slug)}>{d.title}</a>{/snippet}
{#snippet secondsCell(d: Line)}{d.seconds >= 1 ? durationWords(d.seconds) : ''}{/snippet}
{#snippet refusalsCell(d: Line)}{#if d.refusals}<span class="wrong">{d.refusals}</span>{/if}{/snippet}
{#snippet changeCell(d: Line)}<span class="soft">{d.before ? signed(change(d)) : 'new'}</span>{/snippet}
{#snippet moved(title: string, list: typeof report.rose, sign: string)}
	{#if list.length}<div>
			<h3>{title}</h3>
			{#each list as d (d.slug)}<p><a href={address(d.slug)}>{d.title}</a><b>{sign}{Math.abs(change(d))}</b></p>{/each}
		</div>{/if}
{/snippet}
{#snippet tools()}<Tell told={data.told} />{/snippet}
<Hall title="Readership" note="all documents" period={report.period} whole={report.whole} answer={report.answer} staff={report.staff} {tools}>
	<div class="two">
		<div>
			<Bars bars={report.bars} by={report.period.by} length={report.period.length} report="overview" />
			<section>
				<h2>
					By document <small>most opened first</small><span class="tools"
						><a class="quiet" href={itemsHref} download title="Total and unique use by month, after the COUNTER code of practice, as tab-separated values"
							>Item report</a
						><TakeAway report="overview" table="documents" /></span
					>
				</h2>
				{#if report.documents.length}
					<SortedTable rows={report.documents} {columns} label="By document" />
					{#if report.more}<p class="pt-2"><a href={whole} data-sveltekit-noscroll>{counted(report.more, 'more document', 'more documents')}</a></p>{/if}
				{:else}<p class="soft">Nothing was opened in this time. Put documents on pages, or hand out keys, and openings show here.</p>{/if}
			</section>
		</div>
		<div>
			{#if report.rose.length || report.fell.length}
				<section class="moved">
					<h2>What changed <small>openings and copies, against the {report.period.length} days before</small></h2>
					{@render moved('Rose', report.rose, '+')}
					{@render moved('Fell', report.fell, '−')}
				</section>
			{/if}
			<Week week={report.week} />
			<Sources sources={report.sources} devices={report.devices} report="overview" />
		</div>
	</div>
	<Entries entries={data.entries} of={data.of} zone={data.site.zone} withTitle />
</Hall>

<style>
	.wrong {
		color: var(--brick);
	}
	.moved h3 {
		font: 600 13px var(--body);
		margin: 6px 0 2px;
	}
	.moved p {
		display: flex;
		gap: 10px;
		justify-content: space-between;
		border-top: 1px solid var(--line);
		padding: 4px 0;
	}
	.moved p a {
		color: var(--ink);
		text-decoration: none;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.moved p a:hover {
		text-decoration: underline;
	}
	.moved b {
		font-family: var(--title);
	}
	.moved small {
		flex-basis: 100%;
	}
</style>
