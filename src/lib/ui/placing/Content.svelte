<!-- The content of a page, walked node by node: no HTML is ever taken from anybody. -->
<script lang="ts">
	import type { ContentNode } from '#core/placing/content';
	import type { SeenPlacement } from '$lib/server/placing/service';
	import Content from './Content.svelte';
	import Placement from './Placement.svelte';
	let { nodes, placements }: { nodes: readonly ContentNode[]; placements: Readonly<Record<string, SeenPlacement>> } = $props();
	type Form = 'text' | 'button' | 'cover';
	const mark = (node: ContentNode, type: string) => node.marks?.find((m) => m.type === type);
</script>

{#snippet inside(node: ContentNode)}{#if node.content}<Content nodes={node.content} {placements} />{/if}{/snippet}

{#snippet words(node: ContentNode)}
	{#if mark(node, 'bold')}<strong
			>{#if mark(node, 'italic')}<em>{node.text}</em>{:else}{node.text}{/if}</strong
		>{:else if mark(node, 'italic')}<em>{node.text}</em>{:else}{node.text}{/if}
{/snippet}

{#each nodes as node, i (i)}{#if node.type === 'text'}{@const link = mark(node, 'link')}{#if link}<a href={String(link.attrs?.href)} rel="noopener"
				>{@render words(node)}</a
			>{:else}{@render words(node)}{/if}{:else if node.type === 'placement'}{@const seen = placements[String(node.attrs?.id)]}{#if seen}<Placement
				{seen}
				form={node.attrs?.form as Form}
			/>{/if}{:else if node.type === 'hardBreak'}<br />{:else if node.type === 'paragraph'}<p>
			{@render inside(node)}
		</p>{:else if node.type === 'heading'}{#if node.attrs?.level === 3}<h3>{@render inside(node)}</h3>{:else}<h2>
				{@render inside(node)}
			</h2>{/if}{:else if node.type === 'bulletList'}<ul>{@render inside(node)}</ul>{:else if node.type === 'orderedList'}<ol>
			{@render inside(node)}
		</ol>{:else if node.type === 'listItem'}<li>{@render inside(node)}</li>{:else if node.type === 'blockquote'}<blockquote>
			{@render inside(node)}
		</blockquote>{:else if node.type === 'horizontalRule'}<hr />{/if}{/each}
