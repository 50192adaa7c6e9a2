<!-- Keys of all documents: to whom, for what, and what became of them. -->
<script lang="ts">
	import { page } from '$app/state';
	import { Table, TableBody, TableBodyCell, TableBodyRow, TableHead, TableHeadCell } from 'flowbite-svelte';
	import { keyStates } from '#core/access/key';
	import { counted } from '#core/text/list';
	import { endWords, lastWords, mayWords, stateWords, usedWords } from '$lib/ui/access/key-words';
	import ManyKeys from '$lib/ui/access/ManyKeys.svelte';
	import { Button, Checkbox, Input } from '$lib/ui/parts/controls';
	import Paging from '$lib/ui/parts/Paging.svelte';
	import { dayText } from '$lib/ui/parts/when';

	let { data } = $props();
	const stateNames = { ...stateWords, good: 'good' };
	const shown = $derived(data.keys.items);
	const all = $derived(Object.values(data.keys.states).reduce((sum, n) => sum + n, 0));
	const narrowed = $derived(Boolean(data.query.q || data.query.state || data.query.document));
	/** Keys chosen for a change to all of them; a page of the list further they stay chosen. */
	let chosen = $state<string[]>([]);
	const ids = $derived(shown.map(({ id }) => id));
	const whole = $derived(ids.length > 0 && ids.every((id) => chosen.includes(id)));
	const choose = (some: readonly string[], on: boolean) => (chosen = on ? [...new Set([...chosen, ...some])] : chosen.filter((id) => !some.includes(id)));

	function address(change: Record<string, string | null>) {
		const params = new URLSearchParams(page.url.searchParams);
		params.delete('page');
		for (const [k, v] of Object.entries(change)) {
			if (v === null) params.delete(k);
			else params.set(k, v);
		}
		return `/desk/people/keys${params.size ? `?${params}` : ''}`;
	}
</script>

<svelte:head><title>Keys, {data.site.name}</title></svelte:head>
<section>
	<p class="soft"><a href="/desk/people">People</a></p>
	<div class="head">
		<h1>Keys</h1>
		<p class="soft">{counted(data.keys.total, 'key', 'keys')}{narrowed ? ' shown' : ''}</p>
		<span class="ml-auto"></span>
		<form role="search" aria-label="Find keys">
			{#if data.query.state}<input type="hidden" name="state" value={data.query.state} />{/if}
			{#if data.query.document}<input type="hidden" name="document" value={data.query.document} />{/if}
			<Input type="search" name="key" placeholder="To whom, or for what" aria-label="Find a key" value={data.query.q} />
		</form>
	</div>
	<div class="flex flex-wrap gap-1.5 pb-3">
		<Button kind="pill" class={{ on: !data.query.state }} href={address({ state: null })}>All <i>{all}</i></Button>
		{#each keyStates.filter((state) => data.keys.states[state] || data.query.state === state) as state (state)}<Button
				kind="pill"
				class={{ on: data.query.state === state }}
				href={address({ state: data.query.state === state ? null : state })}
				>{stateNames[state].replace(/^./, (c) => c.toUpperCase())} <i>{data.keys.states[state]}</i></Button
			>{/each}
		{#if data.query.document}<Button kind="pill" class="on" href={address({ document: null })}
				>Of {shown[0]?.document.title ?? data.query.document} alone <i aria-hidden="true">×</i><span class="sr-only">(show those of all documents)</span
				></Button
			>{/if}
	</div>
	{#if chosen.length}<ManyKeys keys={chosen} zone={data.zone} none={() => (chosen = [])} />{/if}
	{#if shown.length}
		<Table class="rows">
			<TableHead
				><TableHeadCell class="w-9"
					><Checkbox aria-label="Choose all keys of this page" checked={whole} onchange={(e) => choose(ids, e.currentTarget.checked)} /></TableHeadCell
				><TableHeadCell>For</TableHeadCell><TableHeadCell>Document</TableHeadCell><TableHeadCell>May</TableHeadCell><TableHeadCell>Until</TableHeadCell
				><TableHeadCell>Used</TableHeadCell></TableHead
			>
			<TableBody>
				{#each shown as key (key.id)}
					<TableBodyRow class={{ on: chosen.includes(key.id) }}>
						<TableBodyCell
							><Checkbox
								aria-label="Choose the key “{key.label}” of {key.document.title}"
								checked={chosen.includes(key.id)}
								onchange={(e) => choose([key.id], e.currentTarget.checked)}
							/></TableBodyCell
						>
						<TableBodyCell
							><span class:over={key.state !== 'good'}>{key.label}</span>{#if key.state !== 'good'}<span class="state">{stateNames[key.state]}</span>{/if}<small
								>issued {dayText(key.createdAt, data.zone)}{key.createdBy ? ` by ${key.createdBy}` : ''}</small
							></TableBodyCell
						>
						<TableBodyCell><a href="/desk/documents/{key.document.slug}">{key.document.title}</a></TableBodyCell>
						<TableBodyCell
							>{mayWords(key)}{#if key.password}<small>with password</small>{/if}</TableBodyCell
						>
						<TableBodyCell>{key.until ? endWords(key.until, data.zone) : 'no end'}</TableBodyCell>
						<TableBodyCell><a href="/desk/readership/by/key/{key.id}">{usedWords(key)}</a><small>{lastWords(key, data.zone)}</small></TableBodyCell>
					</TableBodyRow>
				{/each}
			</TableBody>
		</Table>
		<Paging label="Pages of the list" shown={data.query.page} length={data.pageLength} total={data.keys.total} address={(n) => address({ page: String(n) })} />
	{:else if narrowed}<p class="soft py-8">No key fits. <a href="/desk/people/keys">Show all keys</a></p>
	{:else}<p class="soft py-8">
			There are no keys yet. A key is an address that opens one document for somebody outside: it is issued on the document’s sheet, beside its door.
		</p>{/if}
</section>

<style>
	section {
		padding: 16px 18px 60px;
	}
	.head {
		display: flex;
		align-items: baseline;
		flex-wrap: wrap;
		gap: 12px;
		margin-bottom: 12px;
	}
	small {
		display: block;
		font-size: 12px;
		color: var(--ink-soft);
	}
	.over {
		color: var(--ink-soft);
	}
	.state {
		margin-left: 8px;
		font-size: 12px;
		color: var(--brick);
	}
	section :global(tr.on td) {
		background: var(--brass-wash);
	}
</style>
