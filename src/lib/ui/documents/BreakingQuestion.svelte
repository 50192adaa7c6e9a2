<!-- A change by which readers of published pages would be turned away: names the places first, and offers to take the placements out of all these pages or of some. -->
<script lang="ts">
	import { Button, Checkbox } from '$lib/ui/parts/controls';
	import { Modal } from 'flowbite-svelte';
	import { counted } from '#core/text/list';
	import type { Place } from '$lib/server/placing/placed';
	import { refresh } from '$lib/ui/parts/refresh';
	import type { Question } from './breaking';

	interface Props {
		/** What is asked; null while nothing is. */
		question: Question | null;
		/** Makes the change, with some of the placements taken out first. */
		go: (question: Question, takeOut: readonly Place[]) => void;
	}
	let { question = $bindable(), go }: Props = $props();
	const places = $derived(question?.places ?? []);
	const elsewhere = $derived(question?.elsewhere ?? []);
	const sites = $derived([...new Set(elsewhere.map((e) => e.site))]);
	const pages = $derived([...new Map(places.map((p) => [p.page, p])).values()]);
	const documents = $derived(new Map([...places, ...elsewhere].map((p) => [p.document, p.documentTitle])));
	/** Pages on which what stands there stays, by their paths. */
	let staying = $state<Record<string, boolean>>({});
	const takenOut = $derived(places.filter((p) => !staying[p.page]));
	const outOf = $derived(new Set(takenOut.map((p) => p.page)).size);
	const aside = $derived(question !== null && 'aside' in question.change);
	const met = $derived([
		...(places.length ? [`in ${counted(places.length, 'place', 'places')}`] : []),
		...(sites.length ? [`on ${counted(sites.length, 'other website', 'other websites')}`] : [])
	]);
	const title = $derived(
		`Readers meet ${documents.size === 1 ? `“${[...documents.values()][0]}”` : counted(documents.size, 'document', 'documents')} ${met.join(' and ')}`
	);
	const answer = (takeOut: readonly Place[]) => {
		// its buttons are there while it is
		const asked = question!;
		question = null;
		staying = {};
		go(asked, takeOut);
	};
	const leave = () => {
		question = null;
		staying = {};
		// what was chosen is not what is
		void refresh();
	};
	const opened = (site: string) => elsewhere.filter((e) => e.site === site).reduce((sum, e) => sum + e.openings, 0);
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
	{#if !pages.length}<!-- other websites alone -->
	{:else if aside}<p>Once set aside, nothing is there for them on {counted(pages.length, 'page', 'pages')}:</p>
	{:else}<p>With this door, readers of {counted(pages.length, 'page', 'pages')} would be turned away from what stands there:</p>{/if}
	{#if pages.length > 1}<p class="soft">Those that are ticked can be taken out of their pages first.</p>{/if}
	{#if pages.length}<ul>
			{#each pages as place (place.page)}
				<li>
					{#if pages.length > 1}<Checkbox
							aria-label="Take it out of {place.pageTitle}"
							bind:checked={() => !staying[place.page], (out) => (staying[place.page] = !out)}
						/>{/if}
					<a href={place.page} target="_blank">{place.pageTitle}</a>
					<span class="soft">{[place.page, place.front ? 'the front page' : '', whom(place)].filter(Boolean).join(', ')}</span>
				</li>
			{/each}
		</ul>{/if}
	{#if sites.length}
		<p>
			{pages.length
				? 'So would those who come'
				: `${aside ? 'Once set aside, nothing is there for readers' : 'With this door, readers would be turned away'} who come`} from other websites, where it was
			met in the last 30 days:
		</p>
		<ul>
			{#each sites as site (site)}<li>{site} <span class="soft">{counted(opened(site), 'opening', 'openings')}</span></li>{/each}
		</ul>
	{/if}
	<div class="ways">
		{#if pages.length}<Button kind="main" disabled={!outOf} onclick={() => answer(takenOut)}
				>Take the placements out{outOf < pages.length && outOf ? ` of ${counted(outOf, 'page', 'pages')}` : ''} and {aside
					? 'set aside'
					: 'set the door'}</Button
			>{/if}
		<Button onclick={() => answer([])}>{aside ? 'Set aside' : 'Set the door'} all the same</Button>
		<Button kind="quiet" onclick={leave}>Leave it</Button>
	</div>
</Modal>

<style>
	ul {
		margin: 10px 0 16px;
		display: grid;
		gap: 4px;
		max-height: 40vh;
		overflow-y: auto;
	}
	li {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 8px;
		align-items: center;
	}
	.ways {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
	}
</style>
