<!-- Turned away: who, why and how often, with what mends it. -->
<script lang="ts">
	import SortedTable, { type Column } from '$lib/ui/parts/SortedTable.svelte';
	import { refresh } from '$lib/ui/parts/refresh';
	import { counted, listWords } from '#core/text/list';
	import { timeText } from '$lib/ui/parts/when';
	import Mismatch from '$lib/ui/placing/Mismatch.svelte';
	import { mendMismatch } from '$lib/ui/placing/writer.svelte';
	import Hall from '$lib/ui/readership/Hall.svelte';
	import TakeAway from '$lib/ui/readership/TakeAway.svelte';
	import { reasonWords } from '$lib/ui/readership/words';
	let { data } = $props();
	type Line = (typeof data.items)[number];
	const all = $derived(data.items.reduce((sum, r) => sum + r.times, 0));
	const dead = $derived(data.items.filter((r) => r.mismatch));
	const others = $derived(data.items.filter((r) => !r.mismatch));
	const answer = $derived(
		all
			? [
					{ text: counted(all, 'time', 'times'), tone: 'wrong' as const },
					{ text: ` somebody was turned away` },
					...(dead.length
						? [
								{ text: ', ' },
								{ text: `${dead.reduce((sum, r) => sum + r.times, 0)} of them at a dead end`, tone: 'wrong' as const },
								{ text: ' that one press mends' }
							]
						: []),
					{ text: '.' }
				]
			: [{ text: 'Nobody was turned away in this time.' }]
	);
	const who = (r: Line) =>
		listWords([
			...r.people.slice(0, 5),
			...(r.people.length > 5 ? ['others'] : []),
			...(r.nameless ? [counted(r.nameless, 'person without a name', 'people without a name')] : [])
		]);
	/** Where to go to set it right. */
	function remedy(r: Line): { href: string; words: string } | null {
		if (r.reason === 'sign-in' || r.reason === 'not-admitted' || r.reason === 'not-yet' || r.reason === 'closed')
			return { href: `/desk/documents/${r.slug}#door`, words: 'Look at its door' };
		if (r.reason.startsWith('membership')) return { href: '/desk/people', words: 'Look at memberships' };
		if (r.reason.startsWith('key')) return { href: `/desk/documents/${r.slug}#door`, words: 'Look at its keys' };
		return r.reason.endsWith('not-allowed') ? { href: `/desk/documents/${r.slug}#door`, words: 'Look at its allowance' } : null;
	}
	const columns: readonly Column<Line>[] = [
		{ title: 'Document', by: (r) => r.title, cell: titleCell },
		{ title: 'Times', by: (r) => r.times, number: true },
		{ title: 'Why', by: (r) => reasonWords[r.reason] ?? r.reason },
		{ title: 'Who', cell: whoCell },
		{ title: 'Came from', by: (r) => r.pageTitle ?? 'Elsewhere' },
		{ title: 'Last', by: (r) => r.last, cell: lastCell },
		{ title: '', cell: remedyCell }
	];
</script>

<svelte:head><title>Turned away, readership, {data.site.name}</title></svelte:head>
{#snippet titleCell(r: Line)}<a class="title" href="/desk/readership/{r.slug}">{r.title}</a>{/snippet}
{#snippet whoCell(r: Line)}{who(r)}{/snippet}
{#snippet lastCell(r: Line)}<span class="when">{timeText(r.last, data.site.zone)}</span>{/snippet}
{#snippet remedyCell(r: Line)}{@const way = remedy(r)}{#if way}<a class="when" href={way.href}>{way.words}</a>{/if}{/snippet}
{#snippet lines(rows: Line[])}
	<SortedTable {rows} {columns} label="Turned away" />
{/snippet}
<Hall title="Turned away" note="who, why and how often" period={data.period} whole={data.whole} {answer}>
	{#if dead.length}
		<section>
			<h2>At dead ends <small>pages that show a document to people who cannot open it</small></h2>
			{#each dead as r, i (i)}
				<p class="at">
					<b>{counted(r.times, 'time', 'times')}</b>: {who(r)}, {reasonWords[r.reason] ?? r.reason}
				</p>
				{#if r.mismatch && dead.findIndex((o) => o.slug === r.slug && o.page === r.page) === i}<Mismatch
						found={r.mismatch}
						zone={data.site.zone}
						mend={(how, why) => r.mismatch && void mendMismatch(r.mismatch, how, why, refresh)}
					/>{/if}
			{/each}
		</section>
	{/if}
	{#if data.items.length}
		<section>
			<h2>{dead.length ? 'Elsewhere' : 'All'} <span class="tools"><TakeAway report="turned-away" table="refusals" /></span></h2>
			{#if others.length}{@render lines(others)}{:else}<p class="soft">Nobody, but at the dead ends above.</p>{/if}
		</section>
	{/if}
</Hall>

<style>
	section {
		margin-top: 18px;
	}
	.when {
		white-space: nowrap;
	}
	.at {
		margin: 8px 0 4px;
	}
</style>
