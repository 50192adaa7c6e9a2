<!-- A group in the sheet: name, what it is for, how many it has, taking it away. -->
<script lang="ts">
	import { Button, Input, Textarea } from '$lib/ui/parts/controls';
	import { goWith } from '$lib/ui/parts/refresh';
	import { untrack } from 'svelte';
	import { counted } from '#core/text/list';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';

	let {
		group,
		use
	}: {
		group: { slug: string; name: string; description: string; people: number };
		/** What taking it away would end. */
		use: { doors: number; memberships: number };
	} = $props();
	// the sheet is made anew for each group
	let [name, description] = $state(untrack(() => [group.name, group.description]));
	let trouble = $state('');
	let removing = $state(false);
	const changed = $derived(name !== group.name || description !== group.description);

	const say = (words: string) => (trouble = words);
	const save = () =>
		act(
			`“${name}” is changed.`,
			() => call('patch /groups/{slug}', { path: { slug: group.slug }, body: { name, description } }),
			async ({ before }) => {
				await call('patch /groups/{slug}', { path: { slug: group.slug }, body: before });
				({ name = name, description = description } = before);
			},
			{ trouble: say }
		);
	const remove = () =>
		act(`“${group.name}” is taken away.`, () => call('delete /groups/{slug}', { path: { slug: group.slug } }), null, {
			trouble: say,
			show: () => goWith('/desk/people', ['people'])
		});
</script>

<h2>{group.name}</h2>
<p class="soft">
	{counted(group.people, 'person', 'people')} today, {counted(use.memberships, 'membership', 'memberships')} in all; {counted(use.doors, 'door', 'doors')} admit{use.doors ===
	1
		? 's'
		: ''} it.
	<a href="/desk/documents?door=keyed">Documents behind keyed doors</a>
</p>
<form
	class="fields"
	onsubmit={(e) => {
		e.preventDefault();
		void save();
	}}
>
	<label class="wide">Name <Input bind:value={name} required maxlength={120} /></label>
	<label class="wide">What it is for <Textarea bind:value={description} rows={3} maxlength={2000}></Textarea></label>
	<p class="wide checks">
		<Button type="submit" kind="main" disabled={!changed}>Save</Button>
		{#if removing}
			<Button onclick={remove}>Take away for good</Button>
			<Button kind="quiet" onclick={() => (removing = false)}>Keep</Button>
		{:else}<Button onclick={() => (removing = true)}>Take the group away</Button>{/if}
	</p>
	{#if removing}<p class="say wide">
			{counted(use.memberships, 'membership ends', 'memberships end')}, and {counted(use.doors, 'door no longer admits', 'doors no longer admit')} the group. The
			people stay. This cannot be undone.
		</p>{/if}
	{#if trouble}<p class="trouble wide" role="alert">{trouble}</p>{/if}
</form>

<style>
	h2 {
		font-size: 19px;
	}
	form {
		margin: 10px 0 26px;
	}
</style>
