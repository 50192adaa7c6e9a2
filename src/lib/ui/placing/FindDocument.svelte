<!-- A field that finds documents by a part of their titles and gives the one chosen; by mouse and by keyboard. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import { Button, Input } from '$lib/ui/parts/controls';
	import type { AtHand } from '$lib/server/placing/contract';
	import { soughtFor } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	let {
		words,
		start = false,
		except,
		choose,
		leave
	}: {
		words: string;
		/** Takes the focus at once: it was asked for by a press. */
		start?: boolean;
		/** The address of one that is not meant. */
		except?: string;
		choose: (document: AtHand) => void;
		/** Escape with nothing open. */
		leave?: () => void;
	} = $props();
	let q = $state('');
	let items = $state.raw<readonly AtHand[]>([]);
	/** None until something is asked for: Enter on the empty field does nothing. */
	let at = $state(-1);
	let open = $state(false);
	let asked = 0;
	let field = $state<HTMLInputElement>();
	const id = $props.id();
	onMount(() => {
		if (start) field?.focus();
	});
	async function find() {
		const turn = ++asked;
		const found = await soughtFor(call('get /shelf', { query: { q } }));
		if (turn !== asked || !found) return;
		items = found.filter((item) => item.slug !== except).slice(0, 8);
		at = q.trim() ? 0 : -1;
		open = document.activeElement === field;
	}
	function take(item: AtHand | undefined) {
		if (!item) return;
		open = false;
		q = '';
		choose(item);
	}
	function keys(event: KeyboardEvent) {
		if (event.key === 'ArrowDown') at = Math.min(items.length - 1, at + 1);
		else if (event.key === 'ArrowUp') at = Math.max(-1, at - 1);
		else if (event.key === 'Enter') take(open ? items[at] : undefined);
		else if (event.key === 'Escape' && !open && leave) leave();
		else if (event.key === 'Escape') open = false;
		else return;
		event.preventDefault();
	}
</script>

<div class="find">
	<Input
		type="search"
		placeholder={words}
		aria-label={words}
		role="combobox"
		aria-expanded={open}
		aria-controls="{id}-list"
		aria-activedescendant={open && at >= 0 ? `${id}-${at}` : undefined}
		autocomplete="off"
		bind:elementRef={field}
		bind:value={q}
		oninput={() => void find()}
		onfocus={() => void find()}
		onblur={() => (open = false)}
		onkeydown={keys}
	/>
	{#if open}
		<!-- pressing a line leaves the focus in the field, so that the list stands until the press is done -->
		<ul id="{id}-list" role="listbox" aria-label="Documents" onmousedown={(e) => e.preventDefault()}>
			{#each items as item, i (item.slug)}
				<li id="{id}-{i}" role="option" aria-selected={i === at}>
					<Button kind="bare" tabindex={-1} onclick={() => take(item)}><DoorMark position={item.position} height={16} />{item.title}</Button>
				</li>
			{:else}<li class="soft p-2">No document is called that.</li>{/each}
		</ul>
	{/if}
</div>

<style>
	.find {
		position: relative;
	}
	.find :global(.field) {
		width: 100%;
	}
	ul {
		position: absolute;
		z-index: 10;
		left: 0;
		right: 0;
		background: var(--sheet);
		border: 1px solid var(--edge);
		box-shadow: 0 6px 24px rgb(0 0 0 / 18%);
	}
	li :global(button) {
		display: flex;
		gap: 8px;
		align-items: center;
		width: 100%;
		padding: 6px 9px;
		text-align: left;
		cursor: pointer;
	}
	li[aria-selected='true'],
	li :global(button:hover) {
		background: var(--verdigris-wash);
	}
</style>
