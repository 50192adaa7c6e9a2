<!-- Which documents a list has, and how it shows them: of a catalogue, and of a document list in an article. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import { SvelteMap } from 'svelte/reactivity';
	import { page } from '$app/state';
	import type { Field } from '#core/documents/fields';
	import { listOrders, listShows, listStep, orderWords, type Listing } from '#core/placing/listing';
	import { Button, Checkbox, Input, Select } from '$lib/ui/parts/controls';
	import FindDocument from './FindDocument.svelte';
	let {
		given,
		folders,
		topics,
		titles: known,
		set
	}: {
		given: Listing;
		folders: readonly { name: string; count: number }[];
		topics: readonly { name: string; count: number }[];
		/** Of documents picked by hand, by their addresses. */
		titles: ReadonlyMap<string, string>;
		set: (change: Partial<Listing>) => void;
	} = $props();
	const titles = new SvelteMap(untrack(() => known));
	const showWords = { list: 'List', covers: 'Covers', table: 'Table' } as const;
	const picked = $derived(given.documents ?? []);
	/** A list with a value put in or taken out; nothing where none is left. */
	const toggled = (list: readonly string[] | undefined, value: string) => {
		const next = list?.includes(value) ? list.filter((v) => v !== value) : [...(list ?? []), value];
		return next.length ? next : undefined;
	};
	/** The site's fields that have choices. */
	const chosenFields = $derived(((page.data as { fields?: readonly Field[] }).fields ?? []).filter((field) => field.kind === 'choice'));
	function setField(name: string, values: string[] | undefined) {
		const { [name]: _was, ...others } = given.fields ?? {};
		const next = values ? { ...others, [name]: values } : others;
		set({ fields: Object.keys(next).length ? next : undefined });
	}
	const move = (at: number, by: number) => {
		const documents = [...picked];
		documents.splice(at + by, 0, ...documents.splice(at, 1));
		set({ documents });
	};
	function most(field: HTMLInputElement) {
		const number = Math.round(field.valueAsNumber);
		set({ most: Number.isFinite(number) ? Math.min(listStep, Math.max(1, number)) : undefined });
	}
</script>

{#each [{ name: 'folders', legend: 'Folders', all: folders }, { name: 'topics', legend: 'Topics', all: topics }] as const as { name, legend, all } (name)}
	<fieldset>
		<legend>{legend}</legend>
		{#each all as one (one.name)}
			<label
				><Checkbox checked={given[name]?.includes(one.name) ?? false} onchange={() => set({ [name]: toggled(given[name], one.name) })} />
				{one.name} <span class="soft">{one.count}</span></label
			>
		{/each}
	</fieldset>
{/each}
{#each chosenFields as field (field.name)}
	<fieldset>
		<legend>{field.words}</legend>
		{#each field.choices ?? [] as choice (choice)}
			<label
				><Checkbox
					checked={given.fields?.[field.name]?.includes(choice) ?? false}
					onchange={() => setField(field.name, toggled(given.fields?.[field.name], choice))}
				/>
				{choice}</label
			>
		{/each}
	</fieldset>
{/each}
<h3>Picked by hand</h3>
<FindDocument
	words="Add a document"
	choose={(at) => {
		titles.set(at.slug, at.title);
		if (!picked.includes(at.slug)) set({ documents: [...picked, at.slug] });
	}}
/>
<ol>
	{#each picked as slug, i (slug)}
		<li>
			<span>{titles.get(slug) ?? slug}</span>
			<Button disabled={i === 0} onclick={() => move(i, -1)} aria-label="{titles.get(slug)}: earlier">Earlier</Button>
			<Button disabled={i === picked.length - 1} onclick={() => move(i, 1)} aria-label="{titles.get(slug)}: later">Later</Button>
			<Button onclick={() => set({ documents: toggled(picked, slug) })} aria-label="{titles.get(slug)}: out">Out</Button>
		</li>
	{/each}
</ol>
<h3>How</h3>
<div class="row">
	{#each listShows as show (show)}<Button kind="pill" class={{ on: given.show === show }} aria-pressed={given.show === show} onclick={() => set({ show })}
			>{showWords[show]}</Button
		>{/each}
</div>
<label class="row"
	>Order <Select value={given.order ?? 'title'} onchange={(e) => set({ order: e.currentTarget.value as Listing['order'] })}>
		{#each listOrders as order (order)}<option value={order}>{orderWords[order]}</option>{/each}
	</Select></label
>
<label class="row"
	><Checkbox checked={given.beside} onchange={(e) => set({ beside: e.currentTarget.checked })} /> Choosing a title shows the document beside the list</label
>
<label class="row"
	><Checkbox checked={given.filters ?? true} onchange={(e) => set({ filters: e.currentTarget.checked })} /> Filters and find above the list</label
>
<label class="row"
	>At most <Input class="w-20!" type="number" min="1" max={listStep} placeholder="all" value={given.most ?? ''} onchange={(e) => most(e.currentTarget)} /> documents</label
>

<style>
	h3 {
		font: 600 15px var(--title);
		margin: 14px 0 6px;
	}
	fieldset {
		margin-top: 10px;
		display: flex;
		flex-wrap: wrap;
		gap: 4px 14px;
	}
	legend {
		font-size: 13px;
		color: var(--ink-soft);
		margin-bottom: 3px;
	}
	fieldset label,
	.row {
		display: inline-flex;
		gap: 6px;
		align-items: center;
	}
	.row {
		display: flex;
		margin-top: 8px;
	}
	.row :global(.field) {
		padding-right: 28px;
	}
	ol {
		margin-top: 8px;
	}
	ol li {
		display: flex;
		gap: 4px;
		align-items: center;
		padding: 4px 0;
		border-top: 1px solid var(--line);
	}
	ol li span {
		flex: 1;
		min-width: 0;
	}
	ol :global(.btn) {
		padding: 1px 7px;
		min-height: 0;
		font-size: 13px;
	}
</style>
