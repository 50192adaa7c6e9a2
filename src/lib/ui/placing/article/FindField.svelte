<!-- Asks under a tool what is meant: a field that finds, and what it found beneath it; by mouse and by keyboard. -->
<script lang="ts" module>
	import type { Position } from '#core/access/door';
	import type { AtHand } from '$lib/server/placing/contract';
	import type { Article } from './article.svelte';
	import { putFollowing } from './documents';

	export interface Candidate {
		readonly key: string;
		readonly title: string;
		/** What kind of thing it is, where several are found. */
		readonly note?: string;
		/** Of a document: how its door stands. */
		readonly position?: Position;
		readonly choose: () => void;
	}

	/** The line of a document; a shut one has another below it, which lets it follow the page at once. */
	export function documentCandidates(article: Article, { slug, title, position }: AtHand, note?: string): Candidate[] {
		const line: Candidate = { key: slug, title, note, position, choose: () => article.put(slug) };
		if (position !== 'shut') return [line];
		return [line, { key: `${slug} following`, title: `“${title}”, and let it follow the page`, choose: () => putFollowing(article, slug) }];
	}
</script>

<script lang="ts">
	import { onMount, untrack, type Snippet } from 'svelte';
	import { Button, Input } from '$lib/ui/parts/controls';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';

	let {
		title,
		label,
		placeholder,
		none,
		candidates,
		word = $bindable(),
		find,
		close,
		back,
		children
	}: {
		title: string;
		/** Of the field, to those who do not see it. */
		label: string;
		placeholder: string;
		/** What is said where nothing is found. */
		none: string;
		candidates: readonly Candidate[];
		word: string;
		find: (word: string) => void;
		close: () => void;
		/** Escape: closes, and gives the focus back. */
		back: () => void;
		/** Below what is found. */
		children?: Snippet;
	} = $props();
	const id = $props.id();
	let box = $state<HTMLElement>();
	let field = $state<HTMLInputElement>();
	/** None until something is asked for: Enter on the empty field does nothing. */
	let marked = $state(untrack(() => (word ? 0 : -1)));

	onMount(() => {
		field?.focus();
		field?.select();
	});
	function choose(candidate: Candidate) {
		close();
		candidate.choose();
	}
	function keys(event: KeyboardEvent) {
		const candidate = candidates[marked];
		if (event.key === 'ArrowDown') marked = Math.min(candidates.length - 1, marked + 1);
		else if (event.key === 'ArrowUp') marked = Math.max(0, marked - 1);
		else if (event.key === 'Enter') {
			if (candidate) choose(candidate);
		} else if (event.key === 'Escape') back();
		else return;
		event.preventDefault();
		event.stopPropagation();
	}
</script>

<div
	class="asking"
	role="dialog"
	aria-label={title}
	bind:this={box}
	onfocusout={(e) => {
		if (!box?.contains(e.relatedTarget as Node | null)) close();
	}}
>
	<Input
		type="search"
		bind:elementRef={field}
		{placeholder}
		aria-label={label}
		role="combobox"
		aria-expanded="true"
		aria-controls="{id}-list"
		aria-activedescendant={marked < 0 ? undefined : `${id}-${marked}`}
		autocomplete="off"
		bind:value={word}
		oninput={() => {
			marked = word ? 0 : -1;
			find(word);
		}}
		onkeydown={keys}
	/>
	<!-- pressing a line leaves the focus in the field, so that the list stands until the press is done -->
	<ul id="{id}-list" role="listbox" aria-label="Found" onmousedown={(e) => e.preventDefault()}>
		{#each candidates as candidate, i (candidate.key)}
			<li id="{id}-{i}" role="option" aria-selected={i === marked}>
				<Button kind="bare" tabindex={-1} onclick={() => choose(candidate)}
					>{#if candidate.position}<DoorMark position={candidate.position} height={16} />{/if}<span class="title">{candidate.title}</span
					>{#if candidate.note}<small>{candidate.note}</small>{/if}</Button
				>
			</li>
		{:else}<li class="soft p-2">{none}</li>{/each}
	</ul>
	{@render children?.()}
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
	.asking li :global(button) {
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
	.title {
		flex: 1;
		min-width: 0;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	small {
		color: var(--ink-soft);
		font-size: 12px;
		overflow: hidden;
		text-overflow: ellipsis;
		max-width: 45%;
		white-space: nowrap;
	}
</style>
