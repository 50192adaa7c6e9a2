<!-- Two wrote on one page: who saved it meanwhile, how that and what stands here differ, and which of them goes on. -->
<script lang="ts">
	import { Modal } from 'flowbite-svelte';
	import { listWords } from '#core/text/list';
	import { Button } from '$lib/ui/parts/controls';
	import { timeText } from '$lib/ui/parts/when';
	import Compared from './Compared.svelte';
	import type { Writer } from './writer.svelte';

	let { writer, zone, me, anew }: { writer: Writer; zone: string; me: string; anew: () => Promise<void> } = $props();
	const found = $derived(writer.meanwhile);
	const theirs = $derived(found?.theirs);
	const who = $derived(theirs?.draftBy === me ? 'You' : (theirs?.draftBy ?? 'Somebody else'));
	const whose = $derived(who === 'You' ? 'the one saved there' : 'theirs');
	const title = 'Written in two places';
</script>

<Modal
	{title}
	aria-label={title}
	bind:open={
		() => writer.choosing && writer.meanwhile !== null,
		(open) => {
			if (!open) writer.choosing = false;
		}
	}
	class="max-w-2xl"
>
	{#if found && theirs}
		<p>
			{who} saved this page {who === 'You' ? 'in another window ' : ''}({timeText(theirs.draftAt, zone)}), while it was open here. Nothing was written over:
			both are kept until you choose.
		</p>
		{@const { comparison, besides } = found}
		{#if comparison.added || comparison.removed}
			<p class="soft key"><ins>only in yours</ins> <del>only in {whose}</del></p>
			<div class="both"><Compared {comparison} /></div>
		{:else}
			<p class="soft">Their words are the same; what differs is how they are set.</p>
		{/if}
		{#if besides.length}<p class="soft">Also different: {listWords(besides)}.</p>{/if}
		<p class="choices">
			<Button kind="main" onclick={() => void writer.keepMine(anew)}>Go on with yours</Button>
			<Button onclick={() => void writer.takeTheirs(anew)}>Go on with {whose}</Button>
			<Button onclick={() => void writer.mineApart(anew)}>Keep yours as a page of its own</Button>
		</p>
	{/if}
</Modal>

<style>
	.both {
		max-height: 45vh;
		overflow-y: auto;
	}
	.key {
		display: flex;
		gap: 14px;
	}
	.key ins {
		background: var(--verdigris-wash);
	}
	.key del {
		background: var(--brick-wash);
	}
	.choices {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
	}
</style>
