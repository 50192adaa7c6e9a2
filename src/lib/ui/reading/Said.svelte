<!-- What is to be said in the place of the pages, or over them: withdrawn, broken, lost, where one was. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import { directionOf } from '#core/words/words';
	import type { RoomGiven } from './given';
	import Receipt from './Receipt.svelte';
	import type { Room } from './room.svelte';

	let { room, given }: { room: Room; given: RoomGiven } = $props();
	const doc = $derived(given.document);
	const direction = untrack(() => directionOf(given.language));
	/** Somebody came to the end, and has not said that they have read it; what they press away comes again with the next reading. */
	let later = $state(false);
	const asks = $derived(given.receipt && !given.receipt.given && !later && room.page === doc.pages ? given.receipt : null);
</script>

{#if room.withdrawn}
	<div class="said" dir={direction} role="alert">
		<h1>{room.say('withdrawn')}</h1>
		<p>{room.say('withdrawnWords')}</p>
		<p><a href="/d/{doc.slug}">{doc.title}</a></p>
	</div>
{:else if room.trouble}
	<div class="said" dir={direction} role="alert">
		<p>{room.say(room.trouble)}</p>
		<p>
			<button class="main" onclick={() => location.reload()}>{room.say('again')}</button>
			{#if given.maySave && room.has('save')}<a href={room.saveAddress} download>{room.say('save')}</a>{/if}
		</p>
	</div>
{:else if room.broken.includes(room.page)}
	<p class="note" dir={direction} role="alert">
		{room.say('pageCouldNot', { page: room.page })} <button onclick={() => room.again()}>{room.say('again')}</button>
	</p>
{:else if room.lost}
	<p class="note" dir={direction} role="status">{room.say('lost')}</p>
{:else if room.left !== null}
	<p class="note" dir={direction}>
		{room.say('youWere', { page: room.left })}
		<button onclick={() => room.left && room.go(room.left)}>{room.say('goThere')}</button>
		<button onclick={() => (room.left = null)}>{room.say('dismiss')}</button>
	</p>
{:else if asks}
	<div class="note" dir={direction}>
		<Receipt slug={doc.slug} receipt={asks} bind:given={room.receipt} />
		<button onclick={() => (later = true)}>{room.say('close')}</button>
	</div>
{/if}
<noscript>
	<div class="said" dir={direction}>
		<p>{room.say('needsScript')}</p>
		{#if given.maySave}<p><a href={room.saveAddress} download>{room.say('saveInstead')}</a></p>{/if}
	</div>
</noscript>

<style>
	.said,
	.note {
		position: absolute;
		z-index: 5;
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: var(--corner);
	}
	.said {
		inset: 18% 0 auto;
		margin: auto;
		width: min(460px, calc(100% - 32px));
		padding: 22px 26px;
	}
	.said h1 {
		font-size: 1.35em;
		margin: 0 0 8px;
	}
	.said p {
		margin: 8px 0 0;
	}
	.note {
		left: 50%;
		bottom: 14px;
		translate: -50%;
		margin: 0;
		padding: 6px 12px;
		max-width: calc(100% - 24px);
		width: max-content;
		display: flex;
		flex-wrap: wrap;
		gap: 4px 10px;
		align-items: center;
	}

	.said .main {
		background: var(--verdigris);
		color: var(--on-verdigris);
	}
</style>
