<!-- A group in the sheet: name, what it is for, how many it has, taking it away. -->
<script lang="ts">
	import { goto } from '$app/navigation';
	import { refresh } from '$lib/ui/parts/refresh';
	import { untrack } from 'svelte';
	import { counted } from '#core/access/reach';
	import { call, troubleOf } from '$lib/ui/parts/api';
	import { notify } from '$lib/ui/parts/notices.svelte';

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

	async function attempt(what: () => Promise<unknown>) {
		try {
			await what();
			trouble = '';
		} catch (error) {
			trouble = troubleOf(error);
		}
	}
	const save = () =>
		attempt(async () => {
			const before = { name: group.name, description: group.description };
			await call('PATCH', `/groups/${group.slug}`, { name, description });
			await refresh();
			notify(`“${name}” is changed.`, {
				undo: async () => {
					await call('PATCH', `/groups/${group.slug}`, before);
					[name, description] = [before.name, before.description];
					await refresh();
				}
			});
		});
	const remove = () =>
		attempt(async () => {
			await call('DELETE', `/groups/${group.slug}`);
			notify(`“${group.name}” is taken away.`);
			await goto('/desk/people', { invalidateAll: true });
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
	<label class="wide">Name <input class="field" bind:value={name} required maxlength="120" /></label>
	<label class="wide">What it is for <textarea class="field" bind:value={description} rows="3" maxlength="2000"></textarea></label>
	<p class="wide checks">
		<button class="btn main" disabled={!changed}>Save</button>
		{#if removing}
			<button type="button" class="btn" onclick={remove}>Take away for good</button>
			<button type="button" class="quiet" onclick={() => (removing = false)}>Keep</button>
		{:else}<button type="button" class="btn" onclick={() => (removing = true)}>Take the group away</button>{/if}
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
