<!-- The frame of every report: its name, the ways to the other reports, the time it goes over, the answer. -->
<script lang="ts">
	import { Button, Day, Select } from '$lib/ui/parts/controls';
	import type { Snippet } from 'svelte';
	import { page } from '$app/state';
	import { counted } from '#core/text/list';
	import { lengths, steps, type Period } from '#core/readership/period';
	import type { Piece } from '#core/readership/words';
	import Popup from '$lib/ui/parts/Popup.svelte';
	import { notWholeWords } from './words';

	let {
		title,
		note = '',
		period,
		whole = true,
		answer = [],
		staff = null,
		way,
		tools,
		children
	}: {
		title: string;
		note?: string;
		/** Null where the report goes over no time that can be chosen. */
		period: Period | null;
		/** False while the sums are made anew. */
		whole?: boolean;
		answer?: readonly Piece[];
		/** What staff did, which counts in nothing of it. */
		staff?: { readonly openings: number; readonly saves: number } | null;
		/** Back to what this is a part of. */
		way?: { readonly href: string; readonly words: string };
		tools?: Snippet;
		children: Snippet;
	} = $props();

	const reports = [
		['/desk/readership', 'Overview'],
		['/desk/readership/by/place', 'Where placed'],
		['/desk/readership/by/refusal', 'Turned away'],
		['/desk/readership/by/minute', 'Just now']
	] as const;
	const stepWords = { day: 'days', week: 'weeks', month: 'months' } as const;
	const kept = $derived(new URLSearchParams([...page.url.searchParams].filter(([name]) => ['days', 'from', 'until', 'by'].includes(name))));
	let choosing = $state(false);

	function href(change: Record<string, string | null>) {
		const params = new URLSearchParams(page.url.searchParams);
		params.delete('cursor');
		for (const [name, value] of Object.entries(change))
			if (value === null) params.delete(name);
			else params.set(name, value);
		return `?${params}`;
	}
	const say = (day: string) =>
		new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' }).format(Date.parse(`${day}T00:00Z`));
	const lengthWords = (days: number) => (days === 365 ? 'A year' : `${days} days`);
</script>

<div class="hall">
	<nav class="reports" aria-label="Reports">
		{#each reports as [to, words] (to)}<a href="{to}{kept.size ? `?${kept}` : ''}" aria-current={page.url.pathname === to ? 'page' : undefined}>{words}</a
			>{/each}
	</nav>
	<div class="head">
		{#if way}<p class="soft way"><a href={way.href}>{way.words}</a></p>{/if}
		<h1>{title}</h1>
		{#if note}<p class="soft">{note}</p>{/if}
		{#if period}
			<span class="times">
				{#each lengths as days (days)}<Button
						kind="pill"
						class={{ on: period.preset === days }}
						href={href({ days: String(days), from: null, until: null, by: null })}
						data-sveltekit-noscroll>{lengthWords(days)}</Button
					>{/each}
				<Popup label={period.preset ? 'Choose dates' : `${say(period.first)} to ${say(period.last)}`} on={!period.preset} bind:open={choosing} end width={270}>
					<form class="dates" data-sveltekit-noscroll onsubmit={() => (choosing = false)}>
						<label>From <Day name="from" label="From" value={period.first} required /></label>
						<label>Until <Day name="until" label="Until" value={period.last} /></label>
						<label
							>In <Select name="by" value={period.by}
								>{#each steps as step (step)}<option value={step}>{stepWords[step]}</option>{/each}</Select
							></label
						>
						<Button type="submit" kind="main">Show</Button>
					</form>
				</Popup>
				{@render tools?.()}
			</span>
		{/if}
	</div>
	{#if !whole}<p class="unwhole" role="status">{notWholeWords}</p>{/if}
	{#if answer.length}<p class="answer" data-testid="answer">
			{#each answer as piece, i (i)}<span class={piece.tone ?? ''}>{piece.text}</span>{/each}
		</p>{/if}
	{#if staff && (staff.openings || staff.saves)}<p class="soft">
			Staff stand apart and count in none of this: {counted(staff.openings, 'opening', 'openings')}, {counted(staff.saves, 'copy saved', 'copies saved')}.
		</p>{/if}
	{@render children()}
</div>

<style>
	.hall {
		padding: 10px 22px 40px;
		max-width: 1360px;
		margin: 0 auto;
	}
	.reports {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 18px;
		font-size: 13.5px;
		margin-bottom: 8px;
	}
	.reports a {
		color: var(--ink-soft);
		text-decoration: none;
		padding: 3px 0;
		border-bottom: 2px solid transparent;
	}
	.reports a:hover {
		color: var(--ink);
	}
	.reports a[aria-current] {
		color: var(--ink);
		font-weight: 600;
		border-color: var(--brass-bright);
	}
	.head {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 6px 12px;
	}
	.way {
		flex-basis: 100%;
		margin-bottom: -4px;
		font-size: 13px;
	}
	.times {
		margin-left: auto;
		display: flex;
		flex-wrap: wrap;
		gap: 6px;
	}
	.dates {
		display: grid;
		gap: 8px;
	}
	.dates label {
		display: grid;
		grid-template-columns: 52px 1fr;
		align-items: center;
		font-size: 14px;
	}
	.unwhole {
		border-left: 4px solid var(--brass-bright);
		background: var(--sunk);
		padding: 8px 12px;
		margin: 12px 0 0;
		max-width: 78ch;
	}
	.answer {
		font: 400 19px/1.4 var(--title);
		margin: 12px 0 6px;
		max-width: 78ch;
	}
	.answer :global(.strong) {
		color: var(--verdigris);
		font-weight: 650;
	}
	.answer :global(.wrong) {
		color: var(--brick);
	}
	.hall :global(h2) {
		font-size: 17px;
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 4px 12px;
		margin-bottom: 8px;
	}
	.hall :global(h2 small) {
		font: 400 13px var(--body);
		color: var(--ink-soft);
	}
	.hall :global(h2 .tools) {
		display: flex;
		gap: 14px;
		align-items: baseline;
		margin-left: auto;
		font: 400 13px var(--body);
	}
	.hall :global(h2 .quiet) {
		font: 400 13px var(--body);
	}
	.hall :global(h2 .pill) {
		height: 26px;
		font-size: 13px;
	}
	.hall :global(.two) {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 350px;
		gap: 22px 30px;
		margin: 14px 0 22px;
	}
	.hall :global(.two > div) {
		display: grid;
		gap: 22px;
		align-content: start;
		min-width: 0;
	}
	.hall :global(.scroll) {
		max-height: 260px;
		overflow: auto;
		border: 1px solid var(--line);
	}
	.hall :global(.scroll table) {
		border: 0;
	}
	.hall :global(.scroll th) {
		position: sticky;
		top: 0;
	}
	.hall :global(td a.title) {
		font: 600 14.5px var(--title);
		color: var(--ink);
		text-decoration: none;
	}
	.hall :global(td a.title:hover) {
		text-decoration: underline;
	}
	.hall :global(.two > div > *) {
		min-width: 0;
	}
	.hall :global(.wide) {
		overflow-x: auto;
	}
	@media (max-width: 900px) {
		.hall :global(.two) {
			grid-template-columns: minmax(0, 1fr);
		}
	}
	@media print {
		.reports,
		.times {
			display: none;
		}
	}
</style>
