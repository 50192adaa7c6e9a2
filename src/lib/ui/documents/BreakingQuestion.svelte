<!-- A change by which readers of published pages would be turned away: names the places first, and offers to take the placements out. -->
<script lang="ts">
	import { Button } from '$lib/ui/parts/controls';
	import { Modal } from 'flowbite-svelte';
	import { counted } from '#core/access/reach';
	import type { Place } from '$lib/server/placing/placed';
	import { refresh } from '$lib/ui/parts/refresh';
	import type { Question } from './breaking';

	interface Props {
		/** What is asked; null while nothing is. */
		question: Question | null;
		/** Makes the change, with the placements taken out first or not. */
		go: (question: Question, takeOut: boolean) => void;
	}
	let { question = $bindable(), go }: Props = $props();
	const places = $derived(question?.places ?? []);
	const pages = $derived([...new Map(places.map((p) => [p.page, p])).values()]);
	const many = $derived(new Set(places.map((p) => p.document)).size);
	const aside = $derived(question !== null && 'aside' in question.change);
	const title = $derived(
		`Readers meet ${many === 1 ? `“${places[0]?.documentTitle}”` : counted(many, 'document', 'documents')} in ${counted(places.length, 'place', 'places')}`
	);
	const answer = (takeOut: boolean) => {
		// its buttons are there while it is
		const asked = question!;
		question = null;
		go(asked, takeOut);
	};
	const leave = () => {
		question = null;
		// what was chosen is not what is
		void refresh();
	};
	const whom = ({ audience }: Place) =>
		!audience ? '' : audience.anyone ? 'visitors too' : `${audience.people} of ${counted(audience.of, 'person', 'people')} today`;
</script>

<Modal
	{title}
	aria-label={title}
	bind:open={
		() => question !== null,
		(open) => {
			if (!open && question) leave();
		}
	}
	size="sm"
	outsideclose
>
	{#if aside}<p>Once set aside, nothing is there for them on {counted(pages.length, 'page', 'pages')}:</p>
	{:else}<p>With this door, readers of {counted(pages.length, 'page', 'pages')} would be turned away from what stands there:</p>{/if}
	<ul>
		{#each pages.slice(0, 12) as place (place.page)}
			<li>
				<a href={place.page} target="_blank">{place.pageTitle}</a>
				<span class="soft">{[place.page, place.front ? 'the front page' : '', whom(place)].filter(Boolean).join(', ')}</span>
			</li>
		{/each}
		{#if pages.length > 12}<li class="soft">and {pages.length - 12} more</li>{/if}
	</ul>
	<div class="ways">
		<Button kind="main" onclick={() => answer(true)}>Take the placements out and {aside ? 'set aside' : 'set the door'}</Button>
		<Button onclick={() => answer(false)}>{aside ? 'Set aside' : 'Set the door'} all the same</Button>
		<Button kind="quiet" onclick={leave}>Leave it</Button>
	</div>
</Modal>

<style>
	ul {
		margin: 10px 0 16px;
		display: grid;
		gap: 4px;
	}
	.ways {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
	}
</style>
