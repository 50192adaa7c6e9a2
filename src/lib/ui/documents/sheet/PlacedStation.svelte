<!-- Placed: where it stands on the site, whom that turns away, and how it is shown on other websites. -->
<script lang="ts">
	import { counted } from '#core/access/reach';
	import { formWords, pressWords, type Form, type PlacementDefaults, type Press } from '#core/placing/placement';
	import type { DocumentView } from '$lib/server/documents/view';
	import type { MismatchJson } from '$lib/server/placing/mismatches';
	import { refresh } from '$lib/ui/parts/refresh';
	import Mismatch from '$lib/ui/placing/Mismatch.svelte';
	import Outside from '$lib/ui/placing/Outside.svelte';
	import { mendMismatch } from '$lib/ui/placing/writer.svelte';
	import Station from './Station.svelte';

	let {
		view,
		mismatches,
		zone,
		origin,
		defaults,
		framers
	}: {
		view: DocumentView;
		mismatches: readonly MismatchJson[];
		zone: string;
		origin: string;
		/** What the site says of each form. */
		defaults: PlacementDefaults;
		/** Websites that may frame documents. */
		framers: readonly string[];
	} = $props();

	const formOf = (form: string) => (form === 'list' ? 'listed' : form === 'entry' ? 'an entry' : `as a ${formWords[form as Form].toLowerCase()}`);
	const pressOf = (form: string, press: string) =>
		form === 'list' || form === 'entry' || form === 'frame' ? '' : `, press: ${pressWords[press as Press].toLowerCase()}`;
</script>

<Station
	id="placed"
	name="Placed"
	about={view.placements ? `in ${counted(view.placements, 'place', 'places')}` : 'nowhere yet'}
	state={mismatches.some((m) => !m.intended) ? 'wrong' : view.passage.placed}
>
	{#snippet link()}<a href="/desk/pages?place={view.slug}">Place</a>{/snippet}
	{#if view.placedOn.length}
		<ul>
			{#each view.placedOn as place (place.id + place.page)}
				<li>
					<a href="/desk/pages/{place.page}">{place.title}</a>, {formOf(place.form)}{pressOf(place.form, place.press)}{place.published ? '' : ' (draft)'}
				</li>
			{/each}
		</ul>
	{:else}<p class="soft">Put it on a page as a text link, a button, a cover, a card or a frame to read in.</p>{/if}
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
		/>
	{/key}
</Station>
