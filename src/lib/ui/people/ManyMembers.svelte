<!-- What can be done with the members chosen in the list: put into a group or its days renewed, taken out of one, suspended, let in again. -->
<script lang="ts">
	import { Button, Day, Select } from '$lib/ui/parts/controls';
	import { counted } from '#core/text/list';
	import { act } from '$lib/ui/parts/act';
	import { call, type Given } from '$lib/ui/parts/api';
	import Chosen from '$lib/ui/parts/Chosen.svelte';

	let { members, groups, none }: { members: readonly string[]; groups: readonly { slug: string; name: string }[]; /** Chooses none. */ none: () => void } =
		$props();
	let group = $state('');
	let [from, until] = $state(['', '']);
	let busy = $state(false);
	let trouble = $state('');
	const name = $derived(groups.find(({ slug }) => slug === group)?.name ?? '');

	async function change(words: string, wanted: Omit<Given<'post /members/bulk'>['body'], 'members'>) {
		busy = true;
		await act(
			({ undo }) => (undo.length ? `${counted(undo.length, 'person is', 'people are')} ${words}` : 'That is how they are already.'),
			() => call('post /members/bulk', { body: { ...wanted, members: [...members] } }),
			({ undo }) => call('post /members/bulk/undo', { body: { undo } }),
			{ trouble: (said) => (trouble = said) }
		);
		busy = false;
	}
	const join = () => change(`put into ${name}.`, { join: { group, ...(from ? { from } : {}), ...(until ? { until } : {}) } });
</script>

<Chosen
	label="People chosen"
	words={counted(members.length, 'person', 'people')}
	{none}
	{trouble}
	note="Who is in the group already gets the days that you give; a day left empty stays as it is, and for somebody new begins today and has no end."
>
	<label
		>Group
		<Select bind:value={group}>
			<option value="">which?</option>
			{#each groups as { slug, name } (slug)}<option value={slug}>{name}</option>{/each}
		</Select></label
	>
	<label>From day <Day label="From day of those chosen" bind:value={from} /></label>
	<label>Until day <Day label="Until day of those chosen" bind:value={until} least={from || undefined} near={from || null} /></label>
	<Button disabled={busy || !group} onclick={join}>Put into the group</Button>
	<Button disabled={busy || !group} onclick={() => change(`taken out of ${name}.`, { leave: group })}>Take out of it</Button>
	<span class="ml-auto"></span>
	<Button disabled={busy} onclick={() => change('suspended, and signed out.', { suspended: true })}>Suspend</Button>
	<Button disabled={busy} onclick={() => change('let in again.', { suspended: false })}>Let in again</Button>
</Chosen>
