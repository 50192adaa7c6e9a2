<!-- A file whose bytes are here already: open it, use it as a new edition, or bring it in all the same. -->
<script lang="ts">
	import { Button, Input } from '$lib/ui/parts/controls';
	import { soughtFor } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import type { TrayEntry } from './entry';
	import { allTheSame, stop } from './tray.svelte';

	let { entry }: { entry: TrayEntry } = $props();
	let choosing = $state(false);
	let text = $state('');
	let offered = $state<{ slug: string; title: string }[]>([]);
	let asked = 0;
	/** Where the bytes are an earlier edition, that document is what is most likely meant. */
	const earlier = $derived(entry.known.find((d) => !d.inForce));

	async function offer() {
		const turn = ++asked;
		const items = await soughtFor(call('get /documents', { query: { limit: 8, q: text } }));
		if (turn === asked && items) offered = items.filter((d) => !entry.known.some((k) => k.slug === d.slug && k.inForce));
	}
</script>

<p>
	Already here{#each entry.known.slice(0, 2) as known (known.slug)}, {known.inForce ? 'as' : 'as an earlier edition of'}
		<a href="/desk/documents/{known.slug}">{known.title}</a>{/each}{entry.known.length > 2 ? ` and ${entry.known.length - 2} more` : ''}.
</p>
<div class="flex flex-wrap gap-x-4 gap-y-1">
	<a class="quiet" href="/desk/documents/{entry.known[0]?.slug}" onclick={() => stop(entry)}>Open it</a>
	{#if earlier}<Button kind="quiet" onclick={() => allTheSame(entry, earlier.slug)}>Use as new edition of {earlier.title}</Button>
	{:else if !entry.editionOf}<Button kind="quiet" aria-expanded={choosing} onclick={() => (choosing = !choosing)}>Use as new edition of …</Button>{/if}
	{#if !entry.editionOf}<Button kind="quiet" onclick={() => allTheSame(entry)}>Bring in all the same</Button>{/if}
</div>
{#if choosing}
	<Input class="mt-1 w-full!" type="search" placeholder="Title of the document" aria-label="Title of the document" bind:value={text} oninput={offer} />
	<ul>
		{#each offered as document (document.slug)}
			<li><Button kind="quiet" class="py-1! text-left" onclick={() => allTheSame(entry, document.slug)}>{document.title}</Button></li>
		{/each}
	</ul>
{/if}
