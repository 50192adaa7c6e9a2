<!-- The row of filters: the doors laid open, the others each in a panel with their counts, and those saved under a name. -->
<script lang="ts">
	import { Button, Input } from '$lib/ui/parts/controls';
	import { goto } from '$app/navigation';
	import { positions } from '#core/access/door';
	import { filterValues, toggled, type Counts, type FilterName, type Filters } from '#core/documents/filters';
	import { fieldFilter } from '#core/documents/fields';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import Popup from '$lib/ui/parts/Popup.svelte';
	import { conditionWords } from '#core/intake/condition';
	import { languageWords } from './words';

	let {
		filters,
		counts,
		fields,
		finding,
		saved,
		address,
		query
	}: {
		filters: Filters;
		counts: Counts;
		/** The site's fields with choices. */
		fields: readonly { readonly name: string; readonly words: string }[];
		finding: boolean;
		saved: readonly { id: string; name: string; query: string }[];
		/** The address with other filters. */
		address: (filters: Filters) => string;
		/** The room's query as it stands, to be saved. */
		query: string;
	} = $props();

	const doorWords = { shut: 'Shut', keyed: 'Keyed', ajar: 'Ajar', open: 'Open' } as const;
	const others = ['folder', 'topic', 'condition', 'placed', 'language', 'pages', 'brought', 'by'] as const satisfies readonly FilterName[];
	const heads: Record<(typeof others)[number], string> = {
		folder: 'Folder',
		topic: 'Topic',
		condition: 'Condition',
		placed: 'Placed',
		language: 'Language',
		pages: 'Pages',
		brought: 'Brought in',
		by: 'By whom'
	};
	const fixed: Record<string, string> = {
		'placed yes': 'Placed',
		'placed no': 'Not placed',
		'pages 1': '1 page',
		'pages 2-9': '2 to 9',
		'pages 10-49': '10 to 49',
		'pages 50-199': '50 to 199',
		'pages 200-': '200 and more',
		'brought day': 'In the last day',
		'brought week': 'In 7 days',
		'brought month': 'In 30 days',
		'brought year': 'In a year',
		'brought older': 'Longer ago'
	};
	function words(name: FilterName, value: string): string {
		if (name === 'condition') return conditionWords[value as keyof typeof conditionWords];
		if (name === 'language') return value === '' ? 'Not known' : languageWords(value);
		if (name === 'field') return value.slice(value.indexOf(':') + 1);
		if (name === 'folder' && value === '') return 'In no folder';
		if (name === 'by') return counts.by.find((c) => c.value === value)?.words ?? 'Nobody';
		return fixed[`${name} ${value}`] ?? value;
	}
	const countOf = (name: FilterName, value: string) => counts[name].find((c) => c.value === value)?.count ?? 0;
	/** Values to show: those in the documents, those chosen, and for fixed lists all in their order. */
	function values(name: FilterName): string[] {
		const known = filterValues[name];
		if (known) return known.filter((v) => countOf(name, v) > 0 || filters[name]?.includes(v));
		const there = counts[name].map((c) => c.value);
		return [...there, ...(filters[name] ?? []).filter((v) => !there.includes(v))];
	}
	const label = (name: (typeof others)[number]) => {
		const chosen = filters[name] ?? [];
		return chosen.length === 0 ? heads[name] : chosen.length === 1 ? words(name, chosen[0]!) : `${heads[name]}: ${chosen.length}`;
	};
	const filtered = $derived(finding || Object.keys(filters).length > 0);
	let narrow = $state<Record<string, string>>({});
	let naming = $state('');

	function save(event: SubmitEvent) {
		event.preventDefault();
		const name = naming;
		void act(`Saved as “${name.trim()}”.`, async () => {
			await call('post /filters', { body: { name, query } });
			naming = '';
		});
	}
	const drop = ({ id, name, query }: { id: string; name: string; query: string }) =>
		act(
			`“${name}” is no longer saved.`,
			() => call('delete /filters/{id}', { path: { id } }),
			() => call('post /filters', { body: { name, query } })
		);
</script>

{#snippet choice(name: FilterName, value: string)}
	{@const on = filters[name]?.includes(value) ?? false}
	<li>
		<a
			class="value"
			class:on
			href={address(toggled(filters, name, value, true))}
			data-sveltekit-noscroll
			data-sveltekit-keepfocus
			aria-current={on ? 'true' : undefined}
			><svg width="13" height="13" viewBox="0 0 13 13" aria-hidden="true"
				><rect x=".75" y=".75" width="11.5" height="11.5" fill="none" stroke="currentColor" />{#if on}<path
						d="M3 6.5l2.5 2.5 4.5-5"
						fill="none"
						stroke="currentColor"
						stroke-width="1.8"
					/>{/if}</svg
			><span>{words(name, value)}</span><i>{countOf(name, value)}</i></a
		>
	</li>
{/snippet}

<div class="filters" role="group" aria-label="Filters">
	<span class="doors">
		{#each positions as position (position)}
			{@const on = filters.door?.includes(position) ?? false}
			<Button
				kind="pill"
				class={{ on }}
				href={address(toggled(filters, 'door', position, false))}
				aria-current={on ? 'true' : undefined}
				title="Hold Shift to add to those chosen"
				onclick={(e) => {
					if (!e.shiftKey) return;
					e.preventDefault();
					void goto(address(toggled(filters, 'door', position, true)), { noScroll: true });
				}}>{doorWords[position]} <i>{countOf('door', position)}</i></Button
			>
		{/each}
	</span>
	{#each fields as field (field.name)}
		{@const shown = values('field').filter((value) => value.startsWith(fieldFilter(field.name, '')))}
		{@const chosen = (filters.field ?? []).filter((value) => value.startsWith(fieldFilter(field.name, '')))}
		{#if shown.length}
			<Popup
				label={chosen.length === 1 ? words('field', chosen[0]!) : chosen.length ? `${field.words}: ${chosen.length}` : field.words}
				on={chosen.length > 0}
				width={220}
			>
				<ul>
					{#each shown as value (value)}{@render choice('field', value)}{/each}
				</ul>
			</Popup>
		{/if}
	{/each}
	{#each others as name (name)}
		{@const shown = values(name)}
		{#if shown.length > 1 || filters[name]}
			<Popup label={label(name)} on={Boolean(filters[name])} width={name === 'folder' || name === 'topic' ? 280 : 220}>
				{#if shown.length > 12}
					<Input class="mb-2 w-full!" type="search" placeholder="Narrow the list" aria-label="Narrow the list" bind:value={narrow[name]} />
				{/if}
				<ul>
					{#each shown.filter((v) => !narrow[name] || words(name, v).toLowerCase().includes(narrow[name].toLowerCase())) as value (value)}
						{@render choice(name, value)}
					{/each}
				</ul>
				{#if filters[name]}
					<a class="quiet mt-1 inline-block px-2" href={address({ ...filters, [name]: undefined })} data-sveltekit-noscroll>Any {heads[name].toLowerCase()}</a>
				{/if}
			</Popup>
		{/if}
	{/each}
	{#if filtered || saved.length}
		<Popup label="Saved" width={270}>
			{#if saved.length}
				<ul>
					{#each saved as filter (filter.id)}
						<li class="flex items-center">
							<a class="value grow" href="/desk/documents?{filter.query}">{filter.name}</a>
							<Button kind="quiet" class="px-2!" aria-label="Take “{filter.name}” away" onclick={() => drop(filter)}>×</Button>
						</li>
					{/each}
				</ul>
			{:else}<p class="soft px-2 pb-1">Filters you come back to can be kept under a name.</p>{/if}
			{#if filtered}
				<form class="mt-2 flex gap-2 border-t border-[var(--line)] pt-2" onsubmit={save}>
					<Input class="min-w-0 grow" placeholder="Name for this filter" aria-label="Name for this filter" bind:value={naming} required maxlength={80} />
					<Button type="submit">Save</Button>
				</form>
			{/if}
		</Popup>
	{/if}
	{#if filtered}<a class="quiet ml-1" href="/desk/documents">Show all</a>{/if}
</div>

<style>
	.filters {
		display: flex;
		flex-wrap: wrap;
		gap: 7px;
		margin: 13px 0 11px;
		align-items: center;
	}
	.doors {
		display: flex;
	}
	.doors :global(.pill) {
		border-radius: 0;
		margin-left: -1px;
	}
	.doors :global(.pill.on) {
		z-index: 1;
	}
	.value {
		display: flex;
		gap: 9px;
		align-items: center;
		padding: 5px 8px;
		color: var(--ink);
		text-decoration: none;
		border-radius: 2px;
	}
	.value:hover {
		background: var(--ground);
	}
	.value svg {
		flex: none;
		color: var(--edge);
	}
	.value.on,
	.value.on svg {
		color: var(--brass);
	}
	.value span {
		flex: 1;
		overflow-wrap: anywhere;
	}
	.value i {
		font-style: normal;
		color: var(--ink-soft);
	}
</style>
