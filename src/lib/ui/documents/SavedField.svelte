<!-- A field that saves as one types, with a sign of it and an undo. -->
<script lang="ts">
	import { Button, Input, Textarea } from '$lib/ui/parts/controls';
	import { untrack } from 'svelte';
	import { Autosave } from './autosave.svelte';

	let {
		label,
		value,
		send,
		refuses,
		rows = 0,
		max,
		list,
		placeholder,
		large = false,
		hint
	}: {
		label: string;
		value: string;
		send: (text: string) => Promise<void>;
		/** Why a text cannot be sent at all. */
		refuses?: (text: string) => string | null;
		/** Lines of a larger field; 1 for one line that wraps and grows; 0 for one that does not. */
		rows?: number;
		max: number;
		/** Suggestions while typing. */
		list?: readonly string[];
		placeholder?: string;
		/** In the type of a title. */
		large?: boolean;
		/** Something said of the text as it stands. */
		hint?: (text: string) => { words: string; good: boolean } | null;
	} = $props();

	const id = $props.id();
	const field = untrack(() => new Autosave(value, send, refuses));
	$effect(() => field.take(value));
	const said = $derived(hint?.(field.text) ?? null);
</script>

<div class="saved">
	<label for={id}>{label}</label>
	<span class="state" role="status">
		{#if field.state === 'typing' || field.state === 'saving'}Saving…
		{:else if field.state === 'saved'}Saved{#if field.before !== null}<Button kind="quiet" onclick={() => field.undo()}>Undo</Button>{/if}
		{/if}
	</span>
	{#if rows}
		<Textarea
			{id}
			class={{ large, grows: rows === 1 }}
			{rows}
			maxlength={max}
			{placeholder}
			bind:value={field.text}
			oninput={() => field.typed()}
			onblur={() => field.save()}
			onkeydown={(e) => {
				// a text that is one line however it wraps
				if (e.key !== 'Enter' || rows > 1) return;
				e.preventDefault();
				void field.save();
			}}
		></Textarea>
	{:else}
		<Input
			{id}
			class={{ large }}
			maxlength={max}
			{placeholder}
			list={list ? `${id}-list` : undefined}
			bind:value={field.text}
			oninput={() => field.typed()}
			onblur={() => field.save()}
			onkeydown={(e) => {
				if (e.key === 'Enter') void field.save();
			}}
		/>
		{#if list}<datalist id="{id}-list"
				>{#each list as name (name)}<option value={name}></option>{/each}</datalist
			>{/if}
	{/if}
	{#if field.state === 'refused'}<p class="trouble" role="alert">{field.trouble}</p>{/if}
	{#if said}<p class="hint" class:good={said.good}>{said.words}</p>{/if}
</div>

<style>
	.saved {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 2px 8px;
	}
	label,
	.state,
	.hint {
		font-size: 12.5px;
		color: var(--ink-soft);
	}
	.state :global(.quiet) {
		margin-left: 8px;
		font-size: 12.5px;
	}
	.saved :global(.field),
	.trouble,
	.hint {
		grid-column: 1 / -1;
	}
	.saved :global(.field) {
		width: 100%;
	}
	.saved :global(.large) {
		font: 600 17px/1.3 var(--title);
	}
	.saved :global(.grows) {
		field-sizing: content;
		resize: none;
		min-height: 0;
	}
	.hint.good {
		color: var(--verdigris);
	}
</style>
