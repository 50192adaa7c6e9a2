<!-- The content of an article, walked node by node: no HTML is ever taken from anybody. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { ContentNode, PictureAttrs } from '#core/placing/content';
	import type { Form } from '#core/placing/placement';
	import type { SeenList } from '$lib/server/placing/contract';
	import type { SeenPlacement } from '$lib/server/placing/page-view';
	import Content from './Content.svelte';
	import Figure from './Figure.svelte';
	import ListBody from './ListBody.svelte';
	import Placement from './Placement.svelte';
	let {
		nodes,
		placements,
		lists
	}: {
		nodes: readonly ContentNode[];
		placements: Readonly<Record<string, SeenPlacement>>;
		/** Its document lists, and what is asked of one of them. */
		lists: { readonly seen: Readonly<Record<string, SeenList>>; readonly reading: string | null; readonly query: string };
	} = $props();
	const mark = (node: ContentNode, type: string) => node.marks?.find((m) => m.type === type);
	const attr = (node: ContentNode, name: string) => node.attrs?.[name] as number | undefined;
</script>

{#snippet inside(node: ContentNode)}{#if node.content}<Content nodes={node.content} {placements} {lists} />{/if}{/snippet}

{#snippet text(node: ContentNode)}{node.text}{/snippet}
{#snippet placement(node: ContentNode)}{@const seen = placements[String(node.attrs?.id)]}{#if seen}<Placement
			{seen}
			form={node.attrs?.form as Form}
		/>{/if}{/snippet}
{#snippet words(node: ContentNode, inner: Snippet<[ContentNode]>)}
	{#if mark(node, 'bold')}<strong
			>{#if mark(node, 'italic')}<em>{@render inner(node)}</em>{:else}{@render inner(node)}{/if}</strong
		>{:else if mark(node, 'italic')}<em>{@render inner(node)}</em>{:else}{@render inner(node)}{/if}
{/snippet}

{#each nodes as node, i (i)}{#if node.type === 'text'}{@const link = mark(node, 'link')}{#if link}<a href={String(link.attrs?.href)} rel="noopener"
				>{@render words(node, text)}</a
			>{:else}{@render words(node, text)}{/if}{:else if node.type === 'placement'}{@render words(node, placement)}{:else if node.type === 'hardBreak'}<br
		/>{:else if node.type === 'paragraph'}<p>
			{@render inside(node)}
		</p>{:else if node.type === 'heading'}{#if node.attrs?.level === 3}<h3>{@render inside(node)}</h3>{:else}<h2 id={node.attrs?.anchor as string | undefined}>
				{@render inside(node)}
			</h2>{/if}{:else if node.type === 'bulletList'}<ul>{@render inside(node)}</ul>{:else if node.type === 'orderedList'}<ol>
			{@render inside(node)}
		</ol>{:else if node.type === 'listItem'}<li>{@render inside(node)}</li>{:else if node.type === 'blockquote'}<blockquote>
			{@render inside(node)}
		</blockquote>{:else if node.type === 'horizontalRule'}<hr />{:else if node.type === 'columns'}<div class="columns">
			{@render inside(node)}
		</div>{:else if node.type === 'cards'}<div class="cards">
			{@render inside(node)}
		</div>{:else if node.type === 'band'}<section class="band-of-page {attr(node, 'tone')}" class:night={node.attrs?.tone === 'deep'}>
			{@render inside(node)}
		</section>{:else if node.type === 'column'}<div>{@render inside(node)}</div>{:else if node.type === 'table'}<div class="rows">
			<table><tbody>{@render inside(node)}</tbody></table>
		</div>{:else if node.type === 'tableRow'}<tr>{@render inside(node)}</tr>{:else if node.type === 'tableHeader'}<th
			scope={i === 0 && nodes.some((n) => n.type === 'tableCell') ? 'row' : 'col'}
			colspan={attr(node, 'colspan')}
			rowspan={attr(node, 'rowspan')}>{@render inside(node)}</th
		>{:else if node.type === 'tableCell'}<td colspan={attr(node, 'colspan')} rowspan={attr(node, 'rowspan')}>{@render inside(node)}</td
		>{:else if node.type === 'documentList'}{@const id = String(node.attrs?.id)}{@const seen = lists.seen[id]}{#if seen}<ListBody
				{seen}
				list={id}
				reading={lists.reading}
				query={lists.query}
			/>{/if}{:else if node.type === 'picture'}<Figure attrs={node.attrs as PictureAttrs} />{/if}{/each}

<style>
	.columns {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 0 32px;
	}
	@media (max-width: 600px) {
		.columns {
			grid-template-columns: 1fr;
		}
	}
	.cards {
		clear: both;
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(min(300px, 100%), 1fr));
		gap: 20px;
		margin: 20px 0;
	}
	.cards > :global(.card) {
		width: auto !important;
		margin: 0;
	}
	/* from edge to edge: its ground is painted beyond it, which makes the page no wider */
	.band-of-page {
		--here: var(--wash);
		clear: both;
		display: flow-root;
		margin-block: 32px;
		padding-block: 28px;
		background: var(--here);
		border-image-source: linear-gradient(var(--here), var(--here));
		border-image-slice: 0 fill;
		border-image-outset: 0 100vmax;
	}
	/* the owner's colour has its contrast on the page's ground; here words that are pressed are ink */
	.band-of-page:is(.pale, .deep) {
		--link: var(--ink);
		--outlined: var(--ink);
	}
	.band-of-page:last-child {
		margin-bottom: 0;
	}
	.band-of-page > :global(:first-child) {
		margin-top: 0;
	}
	.band-of-page > :global(:last-child) {
		margin-bottom: 0;
	}
	.pale {
		--ink-soft: var(--soft-on-wash);
	}
	.deep {
		--here: var(--band);
		color: var(--ink);
	}
	@media print {
		.band-of-page {
			background: none;
			border-image: none;
			color: #000;
		}
	}
	.rows {
		overflow-x: auto;
	}
	table {
		border-collapse: collapse;
		min-width: 100%;
	}
	th,
	td {
		border: 1px solid var(--line);
		padding: 6px 10px;
		text-align: start;
		vertical-align: top;
	}
	th {
		background: var(--sunk);
	}
</style>
