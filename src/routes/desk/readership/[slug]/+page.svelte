<!-- Readership of one document. -->
<script lang="ts">
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { page } from '$app/state';
	import { counted } from '#core/text/list';
	import { durationWords } from '#core/readership/words';
	import Popup from '$lib/ui/parts/Popup.svelte';
	import { dayText, timeText } from '$lib/ui/parts/when';
	import Attention from '$lib/ui/readership/Attention.svelte';
	import Bars from '$lib/ui/readership/Bars.svelte';
	import Entries from '$lib/ui/readership/Entries.svelte';
	import Hall from '$lib/ui/readership/Hall.svelte';
	import RollCall from '$lib/ui/readership/RollCall.svelte';
	import Sources from '$lib/ui/readership/Sources.svelte';
	import Tell from '$lib/ui/readership/Tell.svelte';
	import TakeAway from '$lib/ui/readership/TakeAway.svelte';
	let { data } = $props();
	const report = $derived(data.report);
	const { zone } = $derived(data.site);
	const address = $derived(`documents/${data.document.slug}`);
	let choosing = $state(false);
	const editionHref = (number: number, at: string) => {
		const params = new URLSearchParams(page.url.searchParams);
		for (const name of ['cursor', 'days', 'by']) params.delete(name);
		params.set('edition', String(number));
		params.set('from', at.slice(0, 10));
		params.delete('until');
		return `?${params}`;
	};
	const far = (p: { furthest: number; pagesRead: number }) => (p.furthest ? `${p.pagesRead} of ${report.edition.pages}, to page ${p.furthest}` : '');
</script>

<svelte:head><title>Readership of {data.document.title}, {data.site.name}</title></svelte:head>
{#snippet tools()}
	<Tell told={data.told} document={data.document.slug} />
	{#if data.document.editions.length > 1}
		<Popup
			label={report.edition.number === data.document.edition && !page.url.searchParams.has('edition') ? 'Editions' : `Edition ${report.edition.number}`}
			on={page.url.searchParams.has('edition')}
			bind:open={choosing}
			end
			width={230}
		>
			{#each data.document.editions as e (e.number)}<a class="line" href={editionHref(e.number, e.at)} onclick={() => (choosing = false)}
					>Edition {e.number}, since {dayText(e.at, zone)}</a
				>{/each}
		</Popup>
	{/if}
{/snippet}
<Hall
	title={data.document.title}
	note={data.document.sentence}
	period={report.period}
	whole={report.whole}
	answer={report.answer}
	staff={report.staff}
	way={{ href: `/desk/documents/${data.document.slug}`, words: 'Its sheet' }}
	{tools}
>
	<div class="two">
		<div>
			{#if report.edition.pages}<Attention
					slug={data.document.slug}
					edition={report.edition.number}
					pages={report.edition.pages}
					attention={report.attention}
				/>{/if}
			<Bars bars={report.bars} by={report.period.by} length={report.period.length} report={address} marks={report.marks} />
			<section>
				<h2>
					People <small
						>{report.known ? counted(report.known, 'known', 'known') : 'nobody known by name'}{report.nameless
							? `, and ${counted(report.nameless, 'reader', 'readers')} without a name`
							: ''}</small
					>{#if report.people.length}<span class="tools"><TakeAway report={address} table="people" /></span>{/if}
				</h2>
				{#if report.people.length}
					<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
					<div class="scroll people" tabindex="0" role="region" aria-label="People">
						<Table class="rows">
							<TableHead
								><TableHeadCell>Who</TableHeadCell><TableHeadCell>Last</TableHeadCell><TableHeadCell>First</TableHeadCell><TableHeadCell>Openings</TableHeadCell
								><TableHeadCell>Read for</TableHeadCell><TableHeadCell>Pages read</TableHeadCell><TableHeadCell>From</TableHeadCell></TableHead
							>
							<TableBody>
								{#each report.people as p (`${p.id ?? p.name} ${p.first}`)}<TableBodyRow>
										<TableBodyCell
											>{#if p.id}<a class="title" href="/desk/readership/by/member/{p.id}">{p.name}</a>{:else}{p.name}<small>by key</small
												>{/if}{#if p.saves}<small>saved {counted(p.saves, 'copy', 'copies')}{p.printed ? ', printed' : ''}</small>{:else if p.printed}<small
													>printed</small
												>{/if}</TableBodyCell
										>
										<TableBodyCell>{timeText(p.last, zone)}</TableBodyCell>
										<TableBodyCell>{timeText(p.first, zone)}</TableBodyCell>
										<TableBodyCell>{p.openings}</TableBodyCell>
										<TableBodyCell>{p.seconds >= 1 ? durationWords(p.seconds) : ''}</TableBodyCell>
										<TableBodyCell>{far(p)}</TableBodyCell>
										<TableBodyCell>{p.from}</TableBodyCell>
									</TableBodyRow>{/each}
							</TableBody>
						</Table>
					</div>
				{/if}
			</section>
		</div>
		<div>
			{#if report.roll}<RollCall slug={data.document.slug} roll={report.roll} edition={report.edition.number} asks={data.document.asksReceipt} {zone} />{/if}
			<Sources sources={report.sources} devices={report.devices} report={address} />
		</div>
	</div>
	<Entries entries={data.entries} of={data.of} {zone} />
</Hall>

<style>
	.line {
		display: block;
		padding: 7px 8px;
		color: var(--ink);
		text-decoration: none;
	}
	.line:hover,
	.line:focus-visible {
		background: var(--sunk);
	}
	.people {
		max-height: 330px;
	}
	.people small {
		display: block;
		font-size: 12px;
		color: var(--ink-soft);
	}
	.scroll :global(td) {
		vertical-align: top;
	}
	.people :global(td:not(:first-child):not(:last-child)) {
		white-space: nowrap;
	}
</style>
