<!-- The tools above the text: how words stand, what is put in, and a step back. -->
<script lang="ts">
	import { addColumnAfter, addRowAfter, deleteColumn, deleteRow, deleteTable } from '@tiptap/pm/tables';
	import { Button, Fileupload } from '$lib/ui/parts/controls';
	import Popup from '$lib/ui/parts/Popup.svelte';
	import type { Article } from './article.svelte';
	import { newTable, toggleBand } from './nodes';
	import LinkField from './LinkField.svelte';
	import PlaceField from './PlaceField.svelte';
	import TeaserField from './TeaserField.svelte';

	let {
		article,
		asking = $bindable()
	}: { article: Article; /** What is asked for: a document to be placed, where a link leads, or a teaser. */ asking: 'place' | 'link' | 'teaser' | null } =
		$props();

	interface Tool {
		readonly words: string;
		readonly on: boolean;
		readonly run: () => unknown;
	}
	const chain = () => article.editor?.chain().focus();
	const close = () => (asking = null);
	function back() {
		asking = null;
		article.editor?.commands.focus();
	}
	const tools = $derived<Tool[]>([
		{ words: 'Bold', on: article.active('bold'), run: () => chain()?.toggleBold().run() },
		{ words: 'Italic', on: article.active('italic'), run: () => chain()?.toggleItalic().run() },
		{ words: 'Heading', on: article.active('heading', { level: 2 }), run: () => chain()?.toggleHeading({ level: 2 }).run() },
		{ words: 'List', on: article.active('bulletList'), run: () => chain()?.toggleBulletList().run() },
		{ words: 'Link', on: article.active('link'), run: () => (asking = 'link') },
		...(article.inTable
			? [
					{ words: 'Row', on: false, run: () => article.run(addRowAfter) },
					{ words: 'Column', on: false, run: () => article.run(addColumnAfter) },
					{ words: 'Row out', on: false, run: () => article.run(deleteRow) },
					{ words: 'Column out', on: false, run: () => article.run(deleteColumn) },
					{ words: 'Table out', on: false, run: () => article.run(deleteTable) }
				]
			: [])
	]);
	/** What is put in now and then. */
	const more = $derived<Tool[]>([
		{ words: 'Subheading', on: article.active('heading', { level: 3 }), run: () => chain()?.toggleHeading({ level: 3 }).run() },
		{ words: 'Numbers', on: article.active('orderedList'), run: () => chain()?.toggleOrderedList().run() },
		{ words: 'Quote', on: article.active('blockquote'), run: () => chain()?.toggleBlockquote().run() },
		{
			words: 'Two columns',
			on: article.active('columns'),
			run: () => article.putBlock({ type: 'columns', content: [0, 1].map(() => ({ type: 'column', content: [{ type: 'paragraph' }] })) })
		},
		{ words: 'Table', on: false, run: () => article.putBlock(newTable(3, 3)) },
		{ words: 'Pale band', on: article.active('band', { tone: 'pale' }), run: () => article.run(toggleBand('pale')) },
		{ words: 'Deep band', on: article.active('band', { tone: 'deep' }), run: () => article.run(toggleBand('deep')) }
	]);
	let moreOpen = $state(false);
	const steps: readonly Tool[] = [
		{ words: 'Undo', on: false, run: () => chain()?.undo().run() },
		{ words: 'Redo', on: false, run: () => chain()?.redo().run() }
	];
</script>

{#snippet press(tool: Tool)}<Button kind="bare" class={{ on: tool.on }} aria-pressed={tool.on} onclick={tool.run}>{tool.words}</Button>{/snippet}

<div class="tools" role="toolbar" aria-label="Formatting">
	{#each tools as tool (tool.words)}{@render press(tool)}{/each}
	<label class="tool"
		>Picture<Fileupload
			unseen
			accept="image/png,image/jpeg,image/webp"
			onchange={(e) => {
				const file = e.currentTarget.files?.[0];
				e.currentTarget.value = '';
				if (file) void article.putPicture(file);
			}}
		/></label
	>
	{@render press({ words: 'Document list', on: article.chosenList !== null, run: () => article.putList() })}
	{@render press({ words: 'Teaser', on: article.chosen?.leads !== undefined, run: () => (asking = 'teaser') })}
	<Popup label="Other tools" on={more.some((tool) => tool.on)} width={160} bind:open={moreOpen}
		>{#each more as tool (tool.words)}<Button
				kind="bare"
				class={['more', { on: tool.on }]}
				aria-pressed={tool.on}
				onclick={() => {
					moreOpen = false;
					tool.run();
				}}>{tool.words}</Button
			>{/each}</Popup
	>
	{#each steps as tool (tool.words)}{@render press(tool)}{/each}
	<Button kind="bare" class="place" title="Alt and p" onclick={() => (asking = 'place')}>Place a document</Button>
	{#if asking === 'place'}<PlaceField {article} {close} {back} />{:else if asking === 'link'}<LinkField
			{article}
			{close}
			{back}
		/>{:else if asking === 'teaser'}<TeaserField {article} {close} {back} />{/if}
</div>

<style>
	.tools {
		position: sticky;
		top: 0;
		z-index: 5;
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0;
		/* wider than the page: all of it in one row where there is room */
		max-width: 1010px;
		margin: 0 auto;
		padding: 8px 0;
		background: var(--ground);
	}
	.tools > :global(button),
	.tools :global(.more),
	.tool {
		padding: 3px 7px;
		border: 1px solid transparent;
		border-radius: var(--corner);
		cursor: pointer;
	}
	.tools > :global(button:hover),
	.tools :global(.more:hover),
	.tool:hover,
	.tool:focus-within {
		border-color: var(--edge);
	}
	.tools > :global(button.on),
	.tools :global(.more.on) {
		background: var(--brass-wash);
		border-color: var(--brass-bright);
		color: var(--brass);
	}
	.tools :global(.more) {
		display: block;
		width: 100%;
		text-align: left;
	}
	.tools > :global(.place) {
		margin-left: auto;
		border-color: var(--edge);
	}
</style>
