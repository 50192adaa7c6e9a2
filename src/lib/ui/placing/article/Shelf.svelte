<!-- The shelf below the text: documents to be pressed or drawn up into the page, and the way to bring in more. -->
<script lang="ts">
	import { chooser } from '$lib/ui/intake/chooser';
	import { Button, Input } from '$lib/ui/parts/controls';
	import { foot } from '$lib/ui/parts/foot';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import type { Article } from './article.svelte';
	import { shelfDrag } from './nodes';

	let { article }: { article: Article } = $props();
	let q = $state('');
	const shelf = $derived((q.trim() && article.found) || article.given.atHand);
</script>

<section class="shelf" {@attach foot} aria-label="Shelf">
	<header>
		<strong>Shelf</strong><span class="soft">press a cover to place it at the cursor, or draw it up into the page</span>
		<Input class="ml-auto" type="search" placeholder="Find on the shelf" aria-label="Find on the shelf" bind:value={q} oninput={() => void article.find(q)} />
	</header>
	<ul>
		<li><Button kind="bare" class="in" onclick={() => chooser.open()}>Bring in</Button></li>
		{#each shelf as at (at.slug)}
			<li>
				<Button
					kind="bare"
					draggable="true"
					title="{at.title}: {at.sentence}"
					aria-label="Place {at.title}"
					ondragstart={(e) => {
						e.dataTransfer?.setData(shelfDrag, at.slug);
					}}
					onclick={() => article.put(at.slug)}
				>
					<img src="/d/{at.slug}/cover/300.webp{at.cover.query}" alt="" draggable="false" />
					<span class="mark"><DoorMark position={at.position} height={18} /></span>
					<small>{at.title}</small>
				</Button>
			</li>
		{/each}
		{#if !shelf.length && q}<li class="soft self-center">No document is called that.</li>{/if}
	</ul>
</section>

<style>
	.shelf {
		grid-row: 2;
		grid-column: 1 / -1;
		background: var(--sunk);
		border-top: 1px solid var(--line);
		padding: 8px 18px 0;
		min-width: 0;
	}
	.shelf header {
		display: flex;
		align-items: center;
		gap: 12px;
	}
	.shelf strong {
		font: 600 16px var(--title);
	}
	.shelf :global(.field) {
		height: 28px;
		font-size: 13px;
		width: 180px;
	}
	.shelf ul {
		display: flex;
		gap: 12px;
		overflow-x: auto;
		align-items: flex-end;
		padding: 8px 2px 0;
		border-bottom: 5px solid color-mix(in oklab, var(--edge) 55%, var(--sunk));
	}
	.shelf li {
		flex: none;
	}
	.shelf :global(button) {
		position: relative;
		display: block;
		cursor: grab;
	}
	.shelf img {
		height: 84px;
		max-width: 130px;
		object-fit: cover;
		object-position: top;
		border: 1px solid var(--line);
		background: #fff;
	}
	.shelf small {
		display: block;
		max-width: 84px;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		font-size: 11px;
		padding: 2px 0 3px;
	}
	.shelf .mark {
		position: absolute;
		right: 2px;
		bottom: 20px;
		background: var(--sheet);
		padding: 1px;
	}
	.shelf :global(.in) {
		height: 84px;
		width: 62px;
		border: 1px dashed var(--edge);
		font-size: 12px;
		margin-bottom: 21px;
		cursor: pointer;
	}
</style>
