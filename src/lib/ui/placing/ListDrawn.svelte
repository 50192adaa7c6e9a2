<!-- A document list in the editor: what it shows now, without leading anywhere. -->
<script lang="ts">
	import type { SvelteMap } from 'svelte/reactivity';
	import type { KeptList } from '#core/placing/content';
	import { counted } from '#core/text/list';
	import { answerTo } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import type { Lists } from './article/list';
	import ListBody from './ListBody.svelte';
	let { props, lists }: { props: SvelteMap<'attrs', KeptList>; lists: Lists } = $props();
	// the editor always gives them
	const attrs = $derived(props.get('attrs')!);
	const seen = $derived(lists.get(attrs.id));
	let turn = 0;
	let trouble = $state(false);

	$effect(() => {
		const { id, ...body } = attrs;
		const mine = ++turn;
		void answerTo(call('post /listing', { body })).then((found) => {
			if (mine !== turn) return;
			trouble = !found;
			if (found) lists.set(id, found);
			else lists.delete(id);
		});
	});
</script>

<span class="tab">Document list{seen ? `: ${counted(seen.total, 'document', 'documents')} now` : ''}</span>
<div class="drawn" inert>
	{#if seen}<ListBody {seen} reading={null} query="" list={attrs.id} />{:else}<p class="soft">
			{trouble ? 'It could not be looked what it lists. It is looked again with the next change of its settings.' : 'Looking what it lists …'}
		</p>{/if}
</div>

<style>
	.drawn :global(.listing) {
		margin-top: 4px;
	}
	.tab {
		display: inline-block;
		padding: 0 8px;
		background: var(--brass-wash);
		border-radius: var(--corner);
		color: var(--brass);
		font-size: 12px;
		font-weight: 600;
	}
</style>
