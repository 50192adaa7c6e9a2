<!-- Making a catalogue: which documents it lists and how, with the page beside it as a visitor would see it. -->
<script lang="ts">
	import { Textarea } from '$lib/ui/parts/controls';
	import { onMount, untrack } from 'svelte';
	import { counted } from '#core/text/list';
	import type { Catalogue } from '#core/placing/content';
	import type { AtHand } from '$lib/server/placing/contract';
	import ListFields from './ListFields.svelte';
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
	const titles = untrack(() => new Map(placed.map((d) => [d.slug, d.title])));
	onMount(() => {
		writer.content = () => $state.snapshot(given);
		return writer.stop;
	});
	function set(change: Partial<Catalogue>) {
		given = { ...given, ...change };
		writer.touch();
	}
	const all = $derived(!given.folders?.length && !given.topics?.length && !given.fields && !given.documents?.length);
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
		<ListFields {given} {folders} {topics} {titles} {set} />
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
