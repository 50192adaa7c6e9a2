<!-- The audit trail: who changed which door, key, group, page or document, from what to what. -->
<script lang="ts">
	import Paging from '$lib/ui/parts/Paging.svelte';
	import { Button, Day, Input, Select } from '$lib/ui/parts/controls';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { page } from '$app/state';
	import { counted } from '#core/text/list';
	import { actionWords, trailActions } from '#core/upkeep/trail';
	import { timeText } from '$lib/ui/parts/when';

	let { data } = $props();
	const kinds = { document: 'Documents', page: 'Pages', person: 'People', group: 'Groups', token: 'Tokens', site: 'The site' } as const;
	const address = (to: number) => {
		const params = new URLSearchParams(page.url.searchParams);
		params.set('page', String(to));
		return `?${params}`;
	};
	const filtered = $derived(Object.values(data.query).some(Boolean));
	const exported = $derived.by(() => {
		const params = new URLSearchParams(page.url.searchParams);
		params.delete('page');
		return `/desk/upkeep/trail.csv${params.size ? `?${params}` : ''}`;
	});
</script>

<svelte:head><title>Who changed what, {data.site.name}</title></svelte:head>
<section>
	<p class="soft"><a href="/desk/upkeep">Upkeep</a></p>
	<div class="head">
		<h1>Who changed what</h1>
		<p class="soft">{counted(data.total, 'entry', 'entries')}</p>
		<Button class="ml-auto" href={exported} download>As a table</Button>
	</div>
	<form class="filters" data-sveltekit-keepfocus>
		<label
			>Of <Select name="kind" value={data.query.kind}
				><option value="">everything</option>{#each Object.entries(kinds) as [kind, words] (kind)}<option value={kind}>{words}</option>{/each}</Select
			></label
		>
		<label
			>By <Select name="actor" value={data.query.actor}
				><option value="">anybody</option>{#each data.actors as actor (actor.id)}<option value={actor.id}>{actor.name}</option>{/each}</Select
			></label
		>
		<label
			>Done <Select name="action" value={data.query.action}
				><option value="">anything</option>{#each trailActions as action (action)}<option value={action}>{actionWords(action)}</option>{/each}</Select
			></label
		>
		<label>From <Day name="from" label="From" value={data.query.from} /></label>
		<label>Until <Day name="until" label="Until" value={data.query.until} /></label>
		<label class="wide">Name or word <Input type="search" name="q" value={data.query.q} /></label>
		<Button type="submit">Show</Button>
		{#if filtered}<a class="quiet" href="/desk/upkeep/trail">Show everything</a>{/if}
	</form>
	{#if data.lines.length}
		<Table class="rows">
			<TableHead><TableHeadCell>When</TableHeadCell><TableHeadCell>Who did what</TableHeadCell><TableHeadCell>From what to what</TableHeadCell></TableHead>
			<TableBody>
				{#each data.lines as line (line.id)}
					<TableBodyRow>
						<TableBodyCell class="when">{timeText(line.at, data.zone)}</TableBodyCell>
						<TableBodyCell
							><b>{line.actor ?? 'The application'}</b>
							{line.words}
							{#if line.href}<a href={line.href}>{line.name}</a>{:else}{line.name}{/if}</TableBodyCell
						>
						<TableBodyCell>
							{#each line.changes.slice(0, 8) as change (change.what)}
								<p>
									<span class="soft">{change.what}:</span>
									{#if change.from !== null}<del>{change.from}</del>{/if}
									{#if change.to !== null}<ins>{change.to}</ins>{/if}
								</p>
							{/each}
							{#if line.changes.length > 8}<p class="soft">and {line.changes.length - 8} more, in the table</p>{/if}
						</TableBodyCell>
					</TableBodyRow>
				{/each}
			</TableBody>
		</Table>
		<Paging label="Pages of the trail" shown={data.page} length={data.pageLength} total={data.total} {address} back="Later" further="Earlier" />
	{:else}<p class="soft py-8">{filtered ? 'Nothing fits.' : 'Nothing has been changed yet.'}</p>{/if}
</section>

<style>
	section {
		padding: 16px 18px 60px;
	}
	.head {
		display: flex;
		align-items: baseline;
		gap: 12px;
	}
	.filters {
		display: flex;
		flex-wrap: wrap;
		align-items: end;
		gap: 10px;
		margin: 12px 0;
	}
	.filters label {
		display: grid;
		gap: 2px;
		font-size: 12.5px;
		color: var(--ink-soft);
	}
	.filters :global(.quiet) {
		line-height: 36px;
	}
	.wide {
		flex: 1;
		min-width: 160px;
		max-width: 320px;
	}
	section :global(td) {
		vertical-align: top;
	}
	section :global(.when) {
		white-space: nowrap;
		color: var(--ink-soft);
	}
	section :global(td p) {
		overflow-wrap: anywhere;
	}
	del {
		color: var(--ink-soft);
	}
	ins {
		text-decoration: none;
		font-weight: 600;
	}
	del + ins::before {
		content: '→ ';
		font-weight: 400;
		color: var(--ink-soft);
	}
</style>
