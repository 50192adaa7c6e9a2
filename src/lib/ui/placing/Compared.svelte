<!-- Two states of a page beside each other: the blocks that differ, words added underlined, words taken out struck. -->
<script lang="ts">
	import type { Comparison } from '#core/documents/compare';
	let { comparison }: { comparison: Comparison } = $props();
</script>

<ol>
	{#each comparison.pages as block, i (i)}
		{#if block.kind !== 'same'}
			<li>
				{#each block.parts as part, j (j)}{#if part.kind === 'added'}<ins>{part.text}</ins>{:else if part.kind === 'removed'}<del>{part.text}</del
						>{:else}{part.text}{/if}{/each}
			</li>
		{/if}
	{/each}
</ol>

<style>
	ol {
		border: 1px solid var(--line);
		background: var(--sheet);
		margin-top: 12px;
	}
	li {
		padding: 10px 14px;
		overflow-wrap: anywhere;
	}
	li + li {
		border-top: 1px solid var(--line);
	}
	ins {
		background: var(--verdigris-wash);
		text-decoration: underline;
	}
	del {
		background: var(--brick-wash);
	}
</style>
