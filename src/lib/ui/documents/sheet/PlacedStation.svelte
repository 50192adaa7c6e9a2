<!-- Placed: where it stands on the site, whom that turns away, and how it is shown on other websites. -->
<script lang="ts">
	import { counted } from '#core/text/list';
	import { formWords, pressWords, type Form, type PlacementDefaults, type Press } from '#core/placing/placement';
	import type { DocumentView } from '$lib/server/documents/view';
	import type { AtHand } from '$lib/server/placing/contract';
	import type { ExchangeAnswer } from '$lib/server/placing/places-contract';
	import type { MismatchJson } from '$lib/server/placing/mismatches';
	import type { Elsewhere } from '$lib/server/readership/elsewhere';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import { Button } from '$lib/ui/parts/controls';
	import { refresh } from '$lib/ui/parts/refresh';
	import FindDocument from '$lib/ui/placing/FindDocument.svelte';
	import Mismatch from '$lib/ui/placing/Mismatch.svelte';
	import PlaceOnPages from '$lib/ui/placing/PlaceOnPages.svelte';
	import FormerAddresses from '$lib/ui/placing/FormerAddresses.svelte';
	import Outside from '$lib/ui/placing/Outside.svelte';
	import { mendMismatch } from '$lib/ui/placing/writer.svelte';
	import Station from './Station.svelte';

	let {
		view,
		mismatches,
		elsewhere,
		zone,
		origin,
		defaults,
		framers,
		owner
	}: {
		view: DocumentView;
		mismatches: readonly MismatchJson[];
		/** Other websites on which readers met it in the last 30 days. */
		elsewhere: readonly Elsewhere[];
		zone: string;
		origin: string;
		/** What the site says of each form. */
		defaults: PlacementDefaults;
		/** Websites that may frame documents. */
		framers: readonly string[];
		/** Whether who looks may say which websites may. */
		owner: boolean;
	} = $props();

	let placing = $state(false);
	let exchanging = $state(false);
	async function exchange(other: AtHand) {
		exchanging = false;
		await act(
			({ places }: ExchangeAnswer) => `“${view.title}” exchanged for “${other.title}” in ${counted(places.length, 'place', 'places')}`,
			() => call('post /documents/{slug}/exchange', { path: { slug: view.slug }, body: { with: other.slug } }),
			({ before }) => call('post /documents/{slug}/exchange', { path: { slug: before.document }, body: before.exchange })
		);
	}

	const formOf = (form: string) => (form === 'list' ? 'listed' : form === 'entry' ? 'an entry' : `as a ${formWords[form as Form].toLowerCase()}`);
	const pressOf = (form: string, press: string) =>
		form === 'list' || form === 'entry' || form === 'frame' ? '' : `, press: ${pressWords[press as Press].toLowerCase()}`;
</script>

<Station
	id="placed"
	name="Placed"
	about={[
		...(view.placements ? [`in ${counted(view.placements, 'place', 'places')}`] : []),
		...(view.listedOn ? [`listed on ${counted(view.listedOn, 'page', 'pages')}`] : [])
	].join(', ') || 'nowhere yet'}
	state={mismatches.some((m) => !m.intended) ? 'wrong' : view.passage.placed}
>
	{#snippet link()}{#if view.placements}<Button kind="quiet" aria-expanded={exchanging} onclick={() => (exchanging = !exchanging)}>Exchange</Button>{/if}
		<Button kind="quiet" aria-expanded={placing} onclick={() => (placing = !placing)}>Place</Button>{/snippet}
	{#if placing}
		{#key view.slug}<PlaceOnPages documents={[view]} {defaults} done={() => (placing = false)} />{/key}
		<p class="soft mb-2">Or <a href="/desk/pages?place={view.slug}">open a page</a> and choose the spot there.</p>
	{/if}
	{#if exchanging}
		<div class="exchange">
			<p>Another document in {view.placements === 1 ? 'its place' : `all ${view.placements} places`}; the words and looks there stay, and so do both doors.</p>
			<FindDocument
				words="Which document comes in its place"
				start
				except={view.slug}
				choose={(other) => void exchange(other)}
				leave={() => (exchanging = false)}
			/>
		</div>
	{/if}
	{#if view.placedOn.length || view.lists.length}
		<ul>
			{#each view.placedOn as place (place.id + place.page)}
				<li>
					<a href="/desk/pages/{place.page}">{place.title}</a>, {formOf(place.form)}{place.leads === null
						? pressOf(place.form, place.press)
						: `, leads to “${place.leads}”`}{place.published ? '' : ' (draft)'}
				</li>
			{/each}
			{#each view.lists as list (list.page)}
				<li><a href="/desk/pages/{list.page}">{list.title}</a>, in its list{list.published ? '' : ' (draft)'}</li>
			{/each}
		</ul>
	{:else}<p class="soft">Put it on a page as a text link, a button, a cover, a card or a frame to read in.</p>{/if}
	{#if elsewhere.length}
		<p class="mt-2">On other websites in the last 30 days:</p>
		<ul>
			{#each elsewhere as { site, openings, met } (site)}
				<li>{site} <span class="soft">{openings ? counted(openings, 'opening', 'openings') : `shown ${met} times`}</span></li>
			{/each}
		</ul>
	{/if}
	{#each mismatches as found (found.kind + found.placement)}
		<div class="mt-2">
			<Mismatch {found} {zone} names="page" mend={(remedy, why) => void mendMismatch(found, remedy, why, refresh)} />
		</div>
	{/each}
	{#key view.slug}
		<Outside
			{origin}
			slug={view.slug}
			title={view.title}
			ratio={view.ratio ?? Math.SQRT2}
			maySave={view.door.allow.save}
			open={view.door.inForce === 'open' || view.door.inForce === 'ajar'}
			{defaults}
			{framers}
			{owner}
		/>
		<div class="mt-3"><FormerAddresses slug={view.slug} /></div>
	{/key}
</Station>

<style>
	.exchange {
		display: grid;
		gap: 8px;
		margin-bottom: 10px;
	}
</style>
