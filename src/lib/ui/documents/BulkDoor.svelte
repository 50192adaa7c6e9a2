<!-- The door of many documents at once: position, who, from when until when, what may be done; set in one press, left as it is where nothing is chosen. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import type { DoorChange, Position } from '#core/access/door';
	import { counted } from '#core/text/list';
	import { splitAddresses } from '#core/people/addresses';
	import Positions, { positionMeans, positionWords } from '$lib/ui/access/Positions.svelte';
	import { soughtFor } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import { Button, Checkbox, Input, Moment, Select } from '$lib/ui/parts/controls';

	let {
		many,
		zone,
		busy,
		trouble,
		set
	}: {
		many: number;
		zone: string;
		busy: boolean;
		/** Why it was not done; what was chosen stays chosen. */
		trouble: string;
		set: (door: DoorChange, words: string) => void;
	} = $props();

	interface GroupLine {
		readonly slug: string;
		readonly name: string;
		readonly people: number;
	}
	let groups = $state.raw<readonly GroupLine[]>([]);
	let position = $state<Position>();
	let chosen = $state.raw<readonly string[]>([]);
	let allMembers = $state(false);
	/** Undefined leaves what is; null takes it away. */
	let from = $state<string | null>();
	let until = $state<string | null>();
	let noHours = $state(false);
	let people = $state('');
	let save = $state('');
	let print = $state('');
	onMount(async () => {
		groups = (await soughtFor(call('get /groups'))) ?? [];
	});

	const timed = $derived(noHours || Boolean(from ?? until));
	const addresses = $derived(splitAddresses(people));
	const named = $derived(groups.filter((group) => chosen.includes(group.slug)).map((group) => group.name));
	/** What keeps it from being set: a door that admits nobody is no key. */
	const lacking = $derived(
		position === 'keyed' && !allMembers && !chosen.length && !addresses.length
			? 'Keyed for whom? Choose all members, a group or people.'
			: position || timed || save || print
				? ''
				: 'Nothing is chosen: every door stays as it is.'
	);
	const said = $derived(
		[
			position === 'keyed'
				? `keyed for ${[...(allMembers ? ['all members'] : named), ...addresses].join(', ')}`
				: position && positionWords[position].toLowerCase(),
			timed && (noHours ? 'without hours' : 'with their hours'),
			save && (save === 'yes' ? 'saving allowed' : 'saving off'),
			print && (print === 'yes' ? 'printing allowed' : 'printing off')
		]
			.filter(Boolean)
			.join(', ')
	);
	function toggle(slug: string) {
		chosen = chosen.includes(slug) ? chosen.filter((s) => s !== slug) : [...chosen, slug];
		position = 'keyed';
	}
	function go(event: SubmitEvent) {
		event.preventDefault();
		if (lacking) return;
		const allow = { ...(save ? { save: save === 'yes' } : {}), ...(print ? { print: print === 'yes' } : {}) };
		set(
			{
				...(position ? { position, follows: null } : {}),
				...(position === 'keyed' ? { allMembers, groups: [...chosen], people: [...addresses] } : {}),
				...(noHours ? { from: null, until: null } : { ...(from ? { from } : {}), ...(until ? { until } : {}) }),
				...(Object.keys(allow).length ? { allow } : {})
			},
			`${said}.`
		);
	}
</script>

<form class="door" onsubmit={go}>
	<Positions label="Door of those chosen" chosen={position} choose={(one) => (position = one)} />
	{#if position && position !== 'keyed'}<p class="soft">{positionMeans[position]}.</p>{/if}
	<!-- whom it is for says that it is keyed -->
	<fieldset class="who">
		<legend class="sr-only">Who is admitted</legend>
		<Button
			kind="pill"
			class={{ on: allMembers }}
			aria-pressed={allMembers}
			onclick={() => {
				allMembers = !allMembers;
				position = 'keyed';
			}}>All members</Button
		>
		{#each groups as group (group.slug)}<Button
				kind="pill"
				class={{ on: chosen.includes(group.slug) }}
				aria-pressed={chosen.includes(group.slug)}
				onclick={() => toggle(group.slug)}>{group.name} <i>{group.people}</i></Button
			>{/each}
	</fieldset>
	<Input
		aria-label="People, by their e-mail addresses"
		placeholder="People, by their e-mail addresses"
		bind:value={people}
		oninput={() => (position = 'keyed')}
	/>
	<div class="hours">
		<span>From</span>
		<Moment
			label="From"
			value={from ?? null}
			{zone}
			none="as it is"
			change={(to) => {
				from = to;
				noHours = false;
			}}
		/>
		<span>Until</span>
		<Moment
			label="Until"
			value={until ?? null}
			near={from ?? null}
			{zone}
			none="as it is"
			change={(to) => {
				until = to;
				noHours = false;
			}}
		/>
	</div>
	<label class="line"
		><Checkbox
			bind:checked={noHours}
			onchange={() => {
				if (noHours) from = until = undefined;
			}}
		/>Take their hours away: at once, and without end</label
	>
	<div class="allow">
		<label
			>Saving <Select bind:value={save}><option value="">as it is</option><option value="yes">allowed</option><option value="no">off</option></Select></label
		>
		<label
			>Printing <Select bind:value={print}><option value="">as it is</option><option value="yes">allowed</option><option value="no">off</option></Select></label
		>
	</div>
	<Button type="submit" kind="main" disabled={busy || lacking !== ''}>Set {counted(many, 'door', 'doors')}</Button>
	{#if trouble}<p class="trouble" role="alert">{trouble}</p>{/if}
	{#if lacking && position}<p class="soft" role="status">{lacking}</p>{/if}
</form>

<style>
	.door {
		display: grid;
		gap: 10px;
	}
	.who,
	.allow {
		display: flex;
		flex-wrap: wrap;
		gap: 6px;
	}
	.line {
		display: flex;
		align-items: center;
		gap: 8px;
	}
	.hours {
		display: grid;
		grid-template-columns: max-content 1fr;
		align-items: center;
		gap: 6px 12px;
	}
	.allow {
		gap: 6px 16px;
	}
	.allow label {
		display: flex;
		align-items: center;
		gap: 6px;
	}
</style>
