<!-- Find: the words, how they are to be looked for, and every place with the words around it. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import type { Room } from './room.svelte';
	let { room }: { room: Room } = $props();
	let field: HTMLInputElement;
	let typed = $state('');
	let waiting: ReturnType<typeof setTimeout> | undefined;
	const shown = $derived(room.foundOn.reduce((sum, p) => sum + p.around.length, 0));
	const more = $derived(room.finding.count - shown);

	onMount(() => {
		typed = room.searchText;
		field.focus();
		field.select();
		return () => clearTimeout(waiting);
	});
	function look() {
		clearTimeout(waiting);
		waiting = setTimeout(() => room.findWords(typed.trim()), 250);
	}
	function keys(event: KeyboardEvent) {
		if (event.key !== 'Enter') return;
		event.preventDefault();
		clearTimeout(waiting);
		if (typed.trim() !== room.searchText) room.findWords(typed.trim());
		else room.findNext(event.shiftKey ? 'previous' : 'next');
	}
	const options = [
		['wholeWords', 'wholeWords'],
		['sameCase', 'sameCase'],
		['sameAccents', 'sameAccents']
	] as const;
</script>

<div class="row">
	<input
		bind:this={field}
		type="search"
		class="words"
		aria-label={room.say('findIn')}
		placeholder={room.say('findIn')}
		bind:value={typed}
		oninput={look}
		onkeydown={keys}
	/>
	<button class="step" onclick={() => room.findNext('previous')} disabled={!room.finding.count} aria-label={room.say('findPrevious')}>↑</button>
	<button class="step" onclick={() => room.findNext('next')} disabled={!room.finding.count} aria-label={room.say('findNext')}>↓</button>
</div>
<div class="options">
	{#each options as [name, word] (name)}<label
			><input type="checkbox" checked={room.search[name]} onchange={(e) => room.setSearch({ [name]: e.currentTarget.checked })} />{room.say(word)}</label
		>{/each}
</div>
{#if room.searchText}
	<p class="count">
		<span role="status"
			>{room.finding.count
				? `${room.finding.at ? `${room.finding.at} / ` : ''}${room.say('times', { count: room.finding.count })}`
				: room.finding.state === 'looking'
					? room.say('looking')
					: room.say(room.given.document.hasWords ? 'notFound' : 'noWordsInside')}</span
		>
		<!-- changes all the time: seen, not read out -->
		{#if room.finding.state === 'looking' && room.finding.looked}<span class="soft"
				>{room.say('lookedThrough', { page: room.finding.looked, count: room.given.document.pages })}</span
			>{/if}
	</p>
	<ol>
		{#each room.foundOn as { page, around } (page)}
			<li>
				<span class="page">{room.say('page')} {page}</span>
				{#each around as { before, found, after }, i (i)}<button class="place" onclick={() => room.viewer?.finder.choose(page, i)}
						>{before}<mark>{found}</mark>{after}</button
					>{/each}
			</li>
		{/each}
		{#if more > 0 && shown}<li class="page">{room.say('moreFound', { count: more })}</li>{/if}
	</ol>
{/if}

<style>
	.row {
		display: flex;
		gap: 4px;
	}
	.words {
		flex: 1;
		min-width: 0;
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		padding: 6px 9px;
		font: inherit;
	}
	.step {
		width: 2.4em;
	}
	.options {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 14px;
		margin-top: 8px;
		font-size: 0.9em;
	}
	.options label {
		display: flex;
		gap: 6px;
		align-items: center;
		min-height: 28px;
	}
	.soft {
		font-weight: 400;
		color: var(--ink-soft);
	}
	.count {
		margin: 8px 0 4px;
		font-weight: 600;
	}
	ol {
		overflow: auto;
		max-height: min(44vh, 26em);
		margin: 0;
		padding: 0;
		list-style: none;
	}
	.page {
		display: block;
		font-size: 0.85em;
		color: var(--ink-soft);
		margin-top: 6px;
	}
	ol .place {
		display: block !important;
		width: 100%;
		text-align: start;
		padding: 5px 6px;
		border: 0;
		border-left: 3px solid var(--brass-bright);
		font-size: 0.92em;
		line-height: 1.35;
		overflow-wrap: anywhere;
		white-space: normal;
	}
	mark {
		background: var(--brass-wash);
		color: inherit;
		font-weight: 600;
	}
</style>
