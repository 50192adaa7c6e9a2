<!-- Writing an article: the page as it will look, the shelf of documents below, the chosen placement at the right. -->
<script lang="ts" module>
	/** What was chosen on a page when it was left, by its path: it is chosen again where one comes back, from a preview say. */
	const leftChosen = new Map<string, string>();
</script>

<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { afterNavigate, beforeNavigate } from '$app/navigation';
	import { Article, type ArticleGiven } from './article.svelte';
	import DropSpots from './DropSpots.svelte';
	import ChosenSettings from './ChosenSettings.svelte';
	import Shelf from './Shelf.svelte';
	import Tools from './Tools.svelte';

	let {
		place,
		teaser,
		zone,
		door,
		...given
	}: ArticleGiven & {
		/** A document to be placed at once. */ place: string | null;
		/** The path of a page to be led to at once. */ teaser: string | null;
		zone: string;
		/** Who may open the page, in words. */
		door: string;
	} = $props();
	let holder = $state<HTMLElement>();
	let sheet = $state<HTMLElement>();
	let asking = $state<'place' | 'link' | 'teaser' | null>(null);
	const article = new Article(untrack(() => given));

	beforeNavigate(() => {
		const id = article.chosen?.id ?? article.chosenList?.id;
		if (id) leftChosen.set(given.writer.path, id);
		else leftChosen.delete(given.writer.path);
	});
	afterNavigate(({ type }) => {
		const id = leftChosen.get(given.writer.path);
		if (type === 'popstate' && id) article.choose(id);
	});
	onMount(() => {
		// bound once it is mounted
		const end = article.begin(holder!, (what) => (asking = what));
		if (place && article.documents.has(place)) article.putAtEnd(place);
		else if (teaser) void article.tease(teaser, true);
		if (place ?? teaser) {
			// once: loaded again, the page does not take it again
			const address = new URL(location.href);
			for (const name of ['place', 'teaser']) address.searchParams.delete(name);
			history.replaceState(history.state, '', address);
		}
		return end;
	});
</script>

<div class="article" class:chosen={article.chosen ?? article.chosenPicture ?? article.chosenList}>
	<div class="desk">
		<Tools {article} bind:asking />
		<article bind:this={sheet}>
			<h1>{given.writer.title}</h1>
			<div bind:this={holder} class="text"></div>
		</article>
	</div>
	<ChosenSettings {article} {zone} link={() => (asking = 'link')} />
	<Shelf {article} />
	<DropSpots {article} {sheet} {door} />
</div>

<style>
	.article {
		display: grid;
		grid-template: minmax(0, 1fr) auto / minmax(0, 1fr);
		min-height: 0;
	}
	.article.chosen {
		grid-template-columns: minmax(0, 1fr) 350px;
	}
	.desk {
		overflow-y: auto;
		padding: 0 20px 20px;
	}
	article {
		max-width: 760px;
		min-height: 60%;
		margin: 0 auto;
		padding: 30px 52px 44px;
		background: var(--sheet);
		border: 1px solid var(--line);
		display: flow-root;
	}
	article h1 {
		font-size: 32px;
		margin-bottom: 12px;
	}
	.text :global(.ProseMirror) {
		outline: none;
		min-height: 220px;
		white-space: pre-wrap;
		word-wrap: break-word;
		display: flow-root;
	}
	.text :global(.placement) {
		--mark: none;
		cursor: pointer;
		border-radius: 2px;
		white-space: normal;
	}
	.text :global(.placement a) {
		cursor: pointer;
	}
	.text :global(.placement:is([data-form='card'], [data-form='frame'])) {
		display: block;
	}
	.text :global(.dead-end) {
		--mark: 2px solid var(--brick);
	}
	.text :global(.side-door) {
		--mark: 2px dashed var(--brass-bright);
	}
	.text :global(.ProseMirror-selectednode) {
		--mark: 2px solid var(--brass-bright);
	}
	/* a cover or button stands in a line: its own box is marked, so that nothing takes another size for being chosen */
	.text :global(:is(.dead-end, .side-door, .ProseMirror-selectednode):not([data-form='cover'], [data-form='button'])),
	.text :global(.placement:is([data-form='cover'], [data-form='button']) > *) {
		outline: var(--mark);
		outline-offset: 3px;
	}
	.text :global(.arriving) {
		display: inline-block;
		padding: 2px 10px;
		border: 1px dashed var(--verdigris);
		border-radius: var(--corner);
		color: var(--verdigris);
		font-size: 0.9em;
		font-variant-numeric: tabular-nums;
	}
	/* the spot between blocks says where it lands */
	.article:has(:global(.here)) :global([class*='prosemirror-dropcursor']) {
		display: none;
	}
	.text :global(.awaiting) {
		background: var(--brass-wash);
	}
	.text :global(.picture a) {
		cursor: pointer;
	}
	.text :global(.picture:is([data-align='left'], [data-align='right'])) {
		display: contents;
	}
	.text :global(.picture:is([data-align='left'], [data-align='right']).ProseMirror-selectednode figure) {
		outline: 2px solid var(--brass-bright);
		outline-offset: 3px;
	}
	.text :global(.document-list) {
		cursor: pointer;
		margin: 12px 0;
	}
	/* over the page's margins, to its edges */
	.text :global([data-band]) {
		margin: 20px -52px;
		padding: 14px 52px;
		display: flow-root;
		background: var(--sunk);
	}
	.text :global([data-band='deep']) {
		background: var(--sheet);
		color: var(--ink);
	}
	.text :global(.columns) {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 0 26px;
	}
	.text :global([data-column]) {
		border: 1px dashed var(--line);
		padding: 0 8px;
		min-width: 0;
	}
	.text :global(table) {
		border-collapse: collapse;
		width: 100%;
		table-layout: fixed;
	}
	.text :global(:is(td, th)) {
		border: 1px solid var(--line);
		padding: 4px 8px;
		text-align: left;
		vertical-align: top;
	}
	.text :global(th) {
		background: var(--sunk);
	}
	.text :global(.selectedCell) {
		background: var(--brass-wash);
	}
	@media (max-width: 900px) {
		.article.chosen {
			grid-template-columns: minmax(0, 1fr);
		}
		article {
			padding: 20px;
		}
		.text :global([data-band]) {
			margin-inline: -20px;
			padding-inline: 20px;
		}
	}
</style>
