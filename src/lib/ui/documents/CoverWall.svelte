<!-- The documents of the room as a wall of covers. -->
<script lang="ts">
	import type { ListedDocument } from '$lib/server/documents/list';
	import { Checkbox } from '$lib/ui/parts/controls';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import { near } from '$lib/ui/parts/near';
	import { coverAddress } from './address';
	import { choose, isChosen } from './chosen.svelte';
	import Hits from './Hits.svelte';

	let { items, chosen, sheet }: { items: readonly ListedDocument[]; chosen: string | null; sheet: (slug: string) => string } = $props();
	const slugs = $derived(items.map((d) => d.slug));
</script>

<ul class="wall">
	{#each items as item (item.id)}
		<li class:picked={isChosen(item.slug)}>
			<Checkbox class="pick" checked={isChosen(item.slug)} aria-label="Choose {item.title}" onclick={(e) => choose(item.slug, slugs, e.shiftKey)} />
			<a id="row-{item.slug}" href={sheet(item.slug)} data-sveltekit-noscroll class:on={item.slug === chosen}>
				<span class="frame"><img alt="" {@attach near(coverAddress(item))} /></span>
				<strong>{item.title}</strong>
				<span class="door"><DoorMark position={item.door.position} height={18} />{item.door.who}</span>
			</a>
			{#if item.hits.length}<Hits slug={item.slug} hits={item.hits} pages={item.hitPages} />{/if}
		</li>
	{/each}
</ul>

<style>
	.door {
		display: flex;
		gap: 8px;
		align-items: center;
		min-width: 0;
	}
	.door :global(svg) {
		flex: none;
	}
	.wall {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
		gap: 18px 14px;
	}
	.wall li {
		position: relative;
	}
	.wall li.picked a {
		background: var(--brass-wash);
	}
	/* beside the title, under the cover: nothing lies over what is on the page */
	li :global(.pick) {
		width: 24px;
		height: 24px;
		position: absolute;
		right: 8px;
		top: 193px;
	}
	.wall a {
		display: block;
		color: var(--ink);
		text-decoration: none;
		padding: 8px;
		border: 1px solid transparent;
		border-radius: var(--corner);
	}
	.wall a.on {
		background: var(--brass-wash);
		border-color: var(--brass-bright);
	}
	.wall .frame {
		height: 178px;
		display: grid;
		align-items: end;
		margin-bottom: 7px;
	}
	.wall img {
		max-height: 178px;
		max-width: 100%;
		border: 1px solid var(--line);
		background: #fff;
	}
	.wall strong {
		font: 600 14px/1.25 var(--title);
		display: block;
		padding-right: 30px;
		margin-bottom: 3px;
	}
	.wall .door {
		font-size: 12px;
		color: var(--ink-soft);
	}
</style>
