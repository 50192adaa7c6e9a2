<!-- Sets a door: position, who, hours, allowance, and the sentence that says what it comes to. Each press is saved at once. -->
<script lang="ts">
	import { Button, Input, Moment, Select } from '$lib/ui/parts/controls';
	import { Checkbox } from 'flowbite-svelte';
	import type { DoorChange, DoorView } from '#core/access/door';
	import Positions from './Positions.svelte';
	import TurnedAwayForm from './TurnedAwayForm.svelte';

	let {
		door,
		groups,
		allMembers,
		zone,
		pages = null,
		allowance = true,
		change
	}: {
		door: Omit<DoorView, 'count' | 'changedAt' | 'changedBy'> & { readonly sentence: string };
		groups: readonly { slug: string; name: string; people: number }[];
		/** How many people "all members" comes to today. */
		allMembers: number;
		zone: string;
		/** Pages whose door a document may follow; null for a page's own door. */
		pages?: readonly { path: string; title: string }[] | null;
		/** Whether save and print can be chosen (they mean nothing for a page). */
		allowance?: boolean;
		change: (change: DoorChange) => void;
	} = $props();

	let wordsShown = $state(false);
	const admitted = $derived(new Set(door.groups.map((g) => g.slug)));
	/** The zone of this computer, where it is another than the site's. */
	const elsewhere = $derived.by(() => {
		const own = Intl.DateTimeFormat().resolvedOptions().timeZone;
		return own === zone ? null : own;
	});

	function toggleGroup(slug: string) {
		const next = new Set(admitted);
		if (!next.delete(slug)) next.add(slug);
		change({ groups: [...next] });
	}
	let newPerson = $state('');
</script>

{#if !door.follows}
	<Positions label="Door" chosen={door.position} choose={(position) => change({ position })} />
{/if}

<p class="say" data-testid="door-sentence">{door.sentence}</p>

{#if !door.follows && door.position === 'keyed'}
	<fieldset class="mt-2">
		<legend class="sr-only">Who is admitted</legend>
		<div class="flex flex-wrap gap-1.5">
			<Button kind="pill" class={{ on: door.allMembers }} aria-pressed={door.allMembers} onclick={() => change({ allMembers: !door.allMembers })}
				>All members <i>{allMembers}</i></Button
			>
			{#each groups as group (group.slug)}
				<Button kind="pill" class={{ on: admitted.has(group.slug) }} aria-pressed={admitted.has(group.slug)} onclick={() => toggleGroup(group.slug)}
					>{group.name} <i>{group.people}</i></Button
				>
			{/each}
		</div>
		{#if !groups.length}<p class="soft mt-1">There are no groups yet. <a class="quiet" href="/desk/people">Make one in People</a></p>{/if}
		<div class="mt-2 flex flex-wrap items-center gap-1.5">
			{#each door.people as person (person.email)}
				<Button
					kind="pill"
					class="on"
					title="Take {person.name} out"
					onclick={() => change({ people: door.people.filter((p) => p.email !== person.email).map((p) => p.email) })}>{person.name} ×</Button
				>
			{/each}
			<form
				onsubmit={(e) => {
					e.preventDefault();
					if (newPerson.trim()) change({ people: [...door.people.map((p) => p.email), newPerson.trim()] });
					newPerson = '';
				}}
			>
				<Input class="small" type="email" placeholder="Admit a person by e-mail" aria-label="Admit a person by e-mail" bind:value={newPerson} />
			</form>
		</div>
	</fieldset>
{/if}

{#if !door.follows}
	<div class="hours">
		<span>From</span>
		<Moment label="From" value={door.from} {zone} none="at once" change={(from) => change({ from })} />
		<span>Until</span>
		<Moment label="Until" value={door.until} near={door.from} {zone} none="no end" change={(until) => change({ until })} />
		<span class="soft zone">Times of {zone}{elsewhere ? `, not of your computer (${elsewhere})` : ''}. Without a time the whole day counts.</span>
	</div>
{/if}

<div class="more">
	<Button kind="quiet" aria-expanded={wordsShown} onclick={() => (wordsShown = !wordsShown)}>Turned away{door.turnedAway ? ' (own words)' : ''}</Button>
	{#if allowance}
		<Checkbox checked={door.allow.save} onchange={() => change({ allow: { save: !door.allow.save } })}>Save</Checkbox>
		<Checkbox checked={door.allow.print} onchange={() => change({ allow: { print: !door.allow.print } })}>Print</Checkbox>
	{/if}
	{#if allowance && door.allow.save}
		<Checkbox checked={door.stamped} onchange={() => change({ stamped: !door.stamped })}>Stamp saved copies</Checkbox>
	{/if}
	{#if door.position === 'keyed' && !door.follows}
		<Checkbox
			checked={door.announced}
			title="Everyone sees its title, its description and for whom it is kept"
			onchange={() => change({ announced: !door.announced })}>Announced</Checkbox
		>
	{/if}
	{#if door.position === 'open' && !door.follows}
		<Checkbox checked={door.listed} onchange={() => change({ listed: !door.listed })}>Listed</Checkbox>
	{/if}
</div>
{#if wordsShown}
	<TurnedAwayForm
		words={door.turnedAway}
		knocks={allowance}
		save={(turnedAway) => {
			change({ turnedAway });
			wordsShown = false;
		}}
	/>
{/if}
{#if pages?.length}
	<label class="follows"
		>Follows
		<Select class="small" value={door.follows?.path ?? ''} onchange={(e) => change({ follows: e.currentTarget.value || null })}>
			<option value="">no page: a door of its own</option>
			{#each pages as page (page.path)}<option value={page.path}>{page.title}</option>{/each}
		</Select>
	</label>
{/if}
{#if allowance && !door.allow.save}
	<p class="soft mt-1.5">
		With saving off the file never leaves: pages are shown as pictures, with their words for reading aloud and finding. That keeps honest people honest. It
		cannot keep somebody who may read from photographing the screen, copying the words or keeping the pictures.
	</p>
{:else if allowance && door.stamped}
	<p class="soft mt-1.5">
		Copies saved by members and by keys carry the name, the day and a number in the margin of each page. Upkeep tells whose copy a file is. A signature in the
		file does not hold in a stamped copy, and a margin can be cut off.
	</p>
{/if}

<style>
	form :global(.small),
	label :global(.small),
	.follows :global(.small) {
		height: 30px;
		font-size: 13px;
		width: auto;
	}
	.more {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 6px 16px;
		margin-top: 8px;
	}
	.hours {
		display: grid;
		grid-template-columns: max-content 1fr;
		align-items: center;
		gap: 6px 12px;
		margin-top: 8px;
	}
	.zone {
		grid-column: 1 / -1;
	}
	.follows {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 6px 8px;
		margin-top: 8px;
	}
	.follows :global(select) {
		padding-right: 30px;
		max-width: 260px;
	}
</style>
