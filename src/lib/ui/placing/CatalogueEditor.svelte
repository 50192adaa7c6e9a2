<!-- Making a catalogue: which documents it lists and how, with the page beside it as a visitor would see it. -->
<script lang="ts">
	import { Button, Checkbox, Select, Textarea } from '$lib/ui/parts/controls';
	import { onMount, untrack } from 'svelte';
	import { counted } from '#core/access/reach';
	import { catalogueOrders, catalogueShows, type Catalogue } from '#core/placing/content';
	import type { AtHand } from '$lib/server/placing/contract';
	import FindDocument from './FindDocument.svelte';
	import type { Writer } from './writer.svelte';
	let {
		writer,
		content,
		folders,
		topics,
		placed
	}: {
		writer: Writer;
		content: Catalogue;
		folders: readonly { name: string; count: number }[];
		topics: readonly { name: string; count: number }[];
		placed: readonly AtHand[];
	} = $props();
	let given = $state<Catalogue>(untrack(() => structuredClone($state.snapshot(content) as Catalogue)));
	let titles = $state(untrack(() => new Map(placed.map((d) => [d.slug, d.title]))));
	const showWords = { list: 'List', covers: 'Covers', table: 'Table' } as const;
	const orderWords = { title: 'By title', '-changed': 'Newest first', folder: 'By folder', '-pages': 'Longest first', given: 'As arranged here' } as const;
	onMount(() => {
		writer.content = () => $state.snapshot(given);
		return writer.stop;
	});
	function set(change: Partial<Catalogue>) {
		given = { ...given, ...change };
		writer.touch();
	}
	const toggled = (list: readonly string[] | undefined, value: string) => (list?.includes(value) ? list.filter((v) => v !== value) : [...(list ?? []), value]);
	const move = (at: number, by: number) => {
		const documents = [...(given.documents ?? [])];
		documents.splice(at + by, 0, ...documents.splice(at, 1));
		set({ documents });
	};
	const handPicked = $derived(given.documents ?? []);
	const all = $derived(!given.folders?.length && !given.topics?.length && !given.documents?.length);
	const look = $derived(`/desk/pages/${writer.id}/preview?bare=1&v=${encodeURIComponent(writer.savedAt)}`);
</script>

<div class="catalogue">
	<section aria-label="What it lists">
		<h2>What it lists</h2>
		<p class="soft">
			{all
				? 'Everything that whoever comes may see. Choose folders, topics or single documents to narrow it.'
				: 'Of what is chosen here, what whoever comes may see.'}
		</p>
		<fieldset>
			<legend>Folders</legend>
			{#each folders as folder (folder.name)}
				<label
					><Checkbox checked={given.folders?.includes(folder.name) ?? false} onchange={() => set({ folders: toggled(given.folders, folder.name) })} />
					{folder.name} <span class="soft">{folder.count}</span></label
				>
			{/each}
		</fieldset>
		<fieldset>
			<legend>Topics</legend>
			{#each topics as topic (topic.name)}
				<label
					><Checkbox checked={given.topics?.includes(topic.name) ?? false} onchange={() => set({ topics: toggled(given.topics, topic.name) })} />
					{topic.name} <span class="soft">{topic.count}</span></label
				>
			{/each}
		</fieldset>
		<h3>Picked by hand</h3>
		<FindDocument
			words="Add a document"
			choose={(at) => {
				titles.set(at.slug, at.title);
				if (!handPicked.includes(at.slug)) set({ documents: [...handPicked, at.slug] });
			}}
		/>
		<ol>
			{#each handPicked as slug, i (slug)}
				<li>
					<span>{titles.get(slug) ?? slug}</span>
					<Button disabled={i === 0} onclick={() => move(i, -1)} aria-label="{titles.get(slug)}: earlier">Earlier</Button>
					<Button disabled={i === handPicked.length - 1} onclick={() => move(i, 1)} aria-label="{titles.get(slug)}: later">Later</Button>
					<Button onclick={() => set({ documents: handPicked.filter((s) => s !== slug) })} aria-label="{titles.get(slug)}: out">Out</Button>
				</li>
			{/each}
		</ol>
		<h2>How</h2>
		<div class="row">
			{#each catalogueShows as show (show)}<Button
					kind="pill"
					class={{ on: given.show === show }}
					aria-pressed={given.show === show}
					onclick={() => set({ show })}>{showWords[show]}</Button
				>{/each}
		</div>
		<label class="row"
			>Order <Select value={given.order ?? 'title'} onchange={(e) => set({ order: e.currentTarget.value as Catalogue['order'] })}>
				{#each catalogueOrders as order (order)}<option value={order}>{orderWords[order]}</option>{/each}
			</Select></label
		>
		<label class="row"
			><Checkbox checked={given.beside} onchange={(e) => set({ beside: e.currentTarget.checked })} /> Choosing a title shows the document beside the list</label
		>
		<label class="row"
			><Checkbox checked={given.filters ?? true} onchange={(e) => set({ filters: e.currentTarget.checked })} /> Filters and find above the list</label
		>
		<label class="block mt-3"
			>Words above the list
			<Textarea class="w-full" rows={3} maxlength={2000} value={given.lead ?? ''} oninput={(e) => set({ lead: e.currentTarget.value || undefined })}
			></Textarea></label
		>
	</section>
	<section class="look" aria-label="As a visitor sees it">
		<p class="soft">As a visitor sees it{given.documents?.length ? `; ${counted(given.documents.length, 'document', 'documents')} picked by hand` : ''}</p>
		<iframe src={look} title="The catalogue as a visitor sees it"></iframe>
	</section>
</div>

<style>
	.catalogue {
		display: grid;
		grid-template-columns: minmax(300px, 400px) minmax(0, 1fr);
		min-height: 0;
	}
	section {
		overflow-y: auto;
		padding: 16px 20px 40px;
	}
	section:first-child {
		border-right: 1px solid var(--line);
		background: var(--sheet);
	}
	h2 {
		font-size: 18px;
		margin-top: 14px;
	}
	h2:first-child {
		margin-top: 0;
	}
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
	.look {
		display: flex;
		flex-direction: column;
		gap: 6px;
		padding-bottom: 14px;
	}
	.look iframe {
		flex: 1;
		min-height: 400px;
		border: 1px solid var(--line);
		background: var(--sheet);
	}
	@media (max-width: 900px) {
		.catalogue {
			grid-template-columns: 1fr;
		}
	}
</style>
