<!-- Asks for a document to be placed at the cursor: a field that finds, and what it found beneath it. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import { Button, Input } from '$lib/ui/parts/controls';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import type { Article } from './article.svelte';

	let { article, close }: { article: Article; close: () => void } = $props();
	let field = $state<HTMLInputElement>();
	let word = $state('');
	let marked = $state(0);
	const candidates = $derived(((word.trim() && article.found) || article.given.atHand).slice(0, 8));

	onMount(() => {
		article.found = null;
		field?.focus();
	});
	function keys(event: KeyboardEvent) {
		const document = candidates[marked];
		if (event.key === 'ArrowDown') marked = Math.min(candidates.length - 1, marked + 1);
		else if (event.key === 'ArrowUp') marked = Math.max(0, marked - 1);
		else if (event.key === 'Enter' && document) {
			close();
			article.put(document.slug);
		} else if (event.key === 'Escape') {
			close();
			article.editor?.commands.focus();
		} else return;
		event.preventDefault();
		event.stopPropagation();
	}
</script>

<div class="asking" role="dialog" aria-label="Place a document">
	<Input
		type="search"
		bind:elementRef={field}
		placeholder="Part of its title"
		aria-label="Which document"
		role="combobox"
		aria-expanded="true"
		aria-controls="place-list"
		aria-activedescendant="place-{marked}"
		bind:value={word}
		oninput={() => {
			marked = 0;
			void article.find(word);
		}}
		onkeydown={keys}
		onblur={close}
	/>
	<!-- pressing a line leaves the focus in the field, so that the list stands until the press is done -->
	<ul id="place-list" role="listbox" aria-label="Documents" onmousedown={(e) => e.preventDefault()}>
		{#each candidates as document, i (document.slug)}
			<li id="place-{i}" role="option" aria-selected={i === marked}>
				<Button
					kind="bare"
					tabindex={-1}
					onclick={() => {
						close();
						article.put(document.slug);
					}}><DoorMark position={document.position} height={16} />{document.title}</Button
				>
			</li>
		{:else}<li class="soft p-2">No document is called that.</li>{/each}
	</ul>
</div>

<style>
	.asking {
		position: absolute;
		right: 0;
		top: 100%;
		width: 330px;
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		padding: 8px;
		box-shadow: 0 6px 24px rgb(0 0 0 / 18%);
	}
	.asking :global(.field) {
		width: 100%;
	}
	.asking :global(button) {
		display: flex;
		gap: 8px;
		align-items: center;
		width: 100%;
		padding: 6px 8px;
		text-align: left;
		cursor: pointer;
	}
	.asking li[aria-selected='true'],
	.asking :global(button:hover) {
		background: var(--verdigris-wash);
	}
</style>
