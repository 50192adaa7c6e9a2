<!-- The roll call: everyone who may open a keyed document, as an arch that is filled (read through; with a tick: receipt given), half (opened) or
     outlined (not yet). -->
<script lang="ts">
	import { Button, Select } from '$lib/ui/parts/controls';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { counted } from '#core/text/list';
	import { byName } from '#core/text/order';
	import { standings, type Standing } from '#core/readership/counting';
	import { isAwaited } from '#core/readership/receipt';
	import type { RollLine } from '$lib/server/readership/reports/document';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import { dayText } from '$lib/ui/parts/when';
	import HouseWord from '$lib/ui/parts/HouseWord.svelte';
	import SortedTable, { type Column } from '$lib/ui/parts/SortedTable.svelte';
	import TakeAway from './TakeAway.svelte';

	let {
		slug,
		roll,
		edition,
		asks,
		zone
	}: {
		slug: string;
		roll: readonly RollLine[];
		edition: number;
		/** Whether the document asks for a receipt. */
		asks: boolean;
		zone: string;
	} = $props();
	/** Up to so many have their names under their arches, up to so many an arch each; beyond that, numbers by group. */
	const [namedUpTo, drawnUpTo] = [24, 240];
	const words: Record<Standing, string> = { receipt: 'gave a receipt', through: 'read it through', opened: 'opened it', 'not-yet': 'not yet' };
	const heads: Record<Standing, string> = { receipt: 'Receipt', through: 'Read through', opened: 'Opened', 'not-yet': 'Not yet' };
	let group = $state('');
	let asTable = $state(false);
	let sending = $state(false);

	const groups = $derived(
		[...new Map(roll.flatMap((r) => r.groups).map((g) => [g.slug, g.name]))].map(([slug, name]) => ({ slug, name })).sort((a, b) => byName(a.name, b.name))
	);
	const within = (wanted: string) => roll.filter((r) => r.groups.some((g) => g.slug === wanted));
	const shown = $derived(group ? within(group) : roll);
	const count = (lines: readonly RollLine[], standing: Standing) => lines.filter((r) => r.standing === standing).length;
	const dayAgo = Date.now() - 86_400_000;
	const awaited = $derived(shown.filter((r) => isAwaited(r.standing, { asks })));
	const due = $derived(awaited.filter((r) => !(r.reminded && Date.parse(r.reminded) > dayAgo)));
	const standingsHere = $derived(standings.filter((standing) => asks || standing !== 'receipt'));
	const standingWords = (r: RollLine) => (r.standing === 'not-yet' && r.earlier ? 'an earlier edition only' : words[r.standing]);

	async function remind() {
		sending = true;
		await act(
			({ mailed, recently, failed }) => {
				const left = [
					recently && `${counted(recently, 'person was', 'people were')} reminded within the last day`,
					failed && `${failed} could not be sent`
				].filter(Boolean);
				return `${counted(mailed, 'reminder', 'reminders')} mailed${left.length ? `; ${left.join('; ')}` : ''}.`;
			},
			() => call('post /documents/{slug}/remind', { path: { slug }, body: { group: group || null } })
		);
		sending = false;
	}
	const columns: readonly Column<RollLine>[] = [
		{ title: 'Who', by: (r) => r.name, cell: nameCell },
		{ title: 'How far', by: standingWords, cell: standingCell },
		{ title: 'Last', by: (r) => r.last, cell: lastCell }
	];
</script>

{#snippet nameCell(r: RollLine)}<a class="title" href="/desk/readership/by/member/{r.id}">{r.name}</a>{/snippet}
{#snippet standingCell(r: RollLine)}{standingWords(r)}{#if r.receipt}<small>{dayText(r.receipt, zone)}</small>{/if}{#if r.reminded}<small
			>reminded {dayText(r.reminded, zone)}</small
		>{/if}{/snippet}
{#snippet lastCell(r: RollLine)}{r.last ? dayText(r.last, zone) : ''}{/snippet}
{#snippet arch(standing: Standing, size: number)}
	<svg viewBox="0 0 20 22" width={size} height={(size * 22) / 20} aria-hidden="true">
		{#if standing === 'receipt'}<path d="M3 21V10a7 7 0 0 1 14 0v11z" fill="var(--verdigris)" /><path
				d="m6 12.5 3 3.2 5-6.2"
				fill="none"
				stroke="var(--on-verdigris)"
				stroke-width="2"
			/>
		{:else if standing === 'through'}<path d="M3 21V10a7 7 0 0 1 14 0v11z" fill="var(--verdigris)" />
		{:else if standing === 'opened'}<path d="M3 21V10a7 7 0 0 1 14 0v11z" fill="none" stroke="var(--verdigris)" stroke-width="1.6" /><path
				d="M3 21v-8h14v8z"
				fill="var(--verdigris)"
			/>
		{:else}<path d="M3 21V10a7 7 0 0 1 14 0v11z" fill="none" stroke="var(--edge)" stroke-width="1.5" stroke-dasharray="2.6 2" />{/if}
	</svg>
{/snippet}

<section>
	<h2>
		<HouseWord word="Roll call" /> <small>{counted(shown.length, 'person', 'people')}{edition > 1 ? `, edition ${edition}` : ''}</small><span class="tools"
			>{#if awaited.length}<Button kind="quiet" disabled={sending || !due.length} onclick={remind}
					>{sending ? 'Mailing…' : due.length ? `Remind ${due.length}` : 'Reminded today'}</Button
				>{/if}<Button kind="quiet" aria-pressed={asTable} onclick={() => (asTable = !asTable)}>{asTable ? 'As arches' : 'As a table'}</Button><TakeAway
				report="documents/{slug}"
				table="roll"
			/></span
		>
	</h2>
	{#if groups.length > 1}
		<label class="of soft"
			>Of <Select bind:value={group}
				><option value="">everyone who may</option>{#each groups as g (g.slug)}<option value={g.slug}>{g.name}</option>{/each}</Select
			></label
		>
	{/if}
	<p class="sum">
		{#each standingsHere as standing (standing)}<span>{@render arch(standing, 14)}{count(shown, standing)} {words[standing]}</span>{/each}
	</p>
	{#if !shown.length}<p class="soft">Nobody may open it today but staff.</p>
	{:else if asTable}
		<SortedTable rows={shown} {columns} label="Roll call" />
	{:else if shown.length <= drawnUpTo}
		<ul class="roll" class:small={shown.length > namedUpTo}>
			{#each shown as r (r.id)}<li>
					<a href="/desk/readership/by/member/{r.id}" title="{r.name}: {standingWords(r)}" aria-label="{r.name}: {standingWords(r)}"
						>{@render arch(r.standing, shown.length > namedUpTo ? 16 : 28)}{#if shown.length <= namedUpTo}<span>{r.name}</span>{/if}</a
					>
				</li>{/each}
		</ul>
	{:else}
		<Table class="rows">
			<TableHead
				><TableHeadCell>Group</TableHeadCell>{#each standingsHere as standing (standing)}<TableHeadCell class="n">{heads[standing]}</TableHeadCell
					>{/each}</TableHead
			>
			<TableBody
				>{#each groups as g (g.slug)}{@const lines = within(g.slug)}<TableBodyRow
						><TableBodyCell>{g.name}</TableBodyCell>{#each standingsHere as standing (standing)}<TableBodyCell class="n">{count(lines, standing)}</TableBodyCell
							>{/each}</TableBodyRow
					>{/each}</TableBody
			>
		</Table>
	{/if}
</section>

<style>
	.of {
		display: block;
		font-size: 13px;
		margin-bottom: 6px;
	}
	.of :global(select) {
		height: 28px;
		font-size: 13px;
	}
	.sum {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 14px;
		font-size: 13px;
		color: var(--ink-soft);
		margin-bottom: 8px;
	}
	.sum span {
		display: inline-flex;
		gap: 5px;
		align-items: center;
	}
	.roll {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(76px, 1fr));
		gap: 10px 8px;
	}
	.roll.small {
		grid-template-columns: repeat(auto-fill, 22px);
		gap: 6px 4px;
	}
	.roll a {
		display: block;
		text-align: center;
		font-size: 12px;
		line-height: 1.25;
		color: var(--ink-soft);
		text-decoration: none;
	}
	.roll a:hover {
		color: var(--ink);
	}
	.roll :global(svg) {
		display: block;
		margin: 0 auto 2px;
	}
	small {
		display: block;
		font-size: 12px;
		color: var(--ink-soft);
	}
	h2 small {
		display: inline;
	}
	section :global(.n) {
		text-align: right;
	}
</style>
