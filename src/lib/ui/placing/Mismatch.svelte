<!-- One dead end or side door: who is meant, and what mends it in one press. -->
<script lang="ts">
	import { Button, Input } from '$lib/ui/parts/controls';
	import type { Remedy } from '#core/placing/mismatch';
	import type { MismatchJson } from '$lib/server/placing/mismatches';
	import { dayText } from '$lib/ui/parts/when';
	import HouseWord from '$lib/ui/parts/HouseWord.svelte';
	import { audienceSaid, remedyWords } from './writer.svelte';
	let {
		found,
		zone,
		names = 'both',
		mend
	}: {
		found: MismatchJson;
		zone: string;
		/** What is named: where it stands under one of the two, that one goes without saying. */
		names?: 'both' | 'document' | 'page' | 'none';
		mend: (remedy: Remedy, why?: string) => void;
	} = $props();
	let why = $state<string | null>(null);
	const later = $derived(Date.parse(found.from) > Date.now() + 1000);
</script>

<div class="mismatch {found.kind}" class:intended={found.intended}>
	<p>
		<b><HouseWord word={found.kind === 'dead-end' ? 'Dead end' : 'Side door'} /></b>
		{#if names === 'both' || names === 'document'}<a href="/desk/documents/{found.document}#placed">{found.documentTitle}</a>{/if}
		{#if names === 'both'}on{/if}
		{#if names === 'both' || names === 'page'}<a href="/desk/pages/{found.pageId}">{found.pageTitle}</a>{/if}
	</p>
	<p class="who">
		{later ? `From ${dayText(found.from, zone)} ` : ''}{found.kind === 'dead-end' ? (later ? 'shown to' : 'Shown to') : later ? 'open to' : 'Open to'}
		<strong>{found.audience.words}</strong>, who cannot open {found.kind === 'side-door'
			? 'this page'
			: found.leadsTo
				? `the page “${found.leadsTo.title}”, to which it leads`
				: 'it'} ({audienceSaid(found)}).
		{#if found.intended}<br /><span class="soft"
				>Meant to be: {found.intended.why} ({found.intended.by ?? 'somebody who is gone'}, {dayText(found.intended.at, zone)})</span
			>{/if}
	</p>
	<p class="do">
		{#each found.remedies as remedy, i (remedy)}
			{#if remedy === 'intended'}
				{#if !found.intended}<Button onclick={() => (why = why === null ? '' : null)}>{remedyWords[remedy]}…</Button>{/if}
			{:else}<Button class={{ main: i === 0 && found.kind === 'dead-end' }} onclick={() => mend(remedy)}>{remedyWords[remedy]}</Button>{/if}
		{/each}
	</p>
	{#if why !== null}
		<form
			onsubmit={(e) => {
				e.preventDefault();
				// asked for before
				mend('intended', why!);
				why = null;
			}}
		>
			<Input bind:value={why} required maxlength={500} placeholder="Why it is meant to be" aria-label="Why it is meant to be" />
			<Button type="submit" kind="main">Mark it</Button>
		</form>
	{/if}
</div>

<style>
	.mismatch {
		border-left: 4px solid var(--brick);
		background: var(--brick-wash);
		padding: 8px 12px;
	}
	.mismatch.side-door {
		border-left-color: var(--brass-bright);
		background: var(--brass-wash);
	}
	.mismatch.intended {
		background: none;
		border-left-color: var(--line);
	}
	b {
		color: var(--brick);
		margin-right: 6px;
	}
	.side-door b {
		color: var(--brass);
	}
	.intended b {
		color: var(--ink-soft);
	}
	a {
		font: 600 15px var(--title);
		color: var(--ink);
	}
	.who {
		margin: 3px 0 7px;
	}
	.do {
		display: flex;
		flex-wrap: wrap;
		gap: 6px;
	}
	.do :global(.btn) {
		min-height: 30px;
		padding: 2px 10px;
		font-size: 13.5px;
	}
	form {
		display: flex;
		gap: 8px;
		margin-top: 8px;
	}
	form :global(.field) {
		flex: 1;
	}
</style>
