<!-- Other ways to bring in: a whole folder, or a PDF from a web address: fetched by the server, and watched where wanted. -->
<script lang="ts">
	import { Button, Checkbox, Input } from '$lib/ui/parts/controls';
	import { goWith } from '$lib/ui/parts/refresh';
	import FieldsTable from '$lib/ui/documents/FieldsTable.svelte';
	import { chooser } from './chooser';
	import { act } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';

	let { folders, fields, done }: { folders: readonly string[]; /** Whether the site has any. */ fields: boolean; done: () => void } = $props();
	let url = $state('');
	let folder = $state('');
	let watch = $state(true);
	let busy = $state(false);
	let trouble = $state('');

	async function fetchIt(event: SubmitEvent) {
		event.preventDefault();
		busy = true;
		const made = await act('', () => call('post /from-web', { body: { url, folder, watch } }), null, {
			trouble: (words) => (trouble = words),
			show: ({ slug }) => goWith(`/desk/documents/${slug}`, ['documents', 'document'])
		});
		busy = false;
		if (!made) return;
		url = '';
		done();
	}
</script>

<Button
	class="w-full"
	onclick={() => {
		done();
		chooser.openFolder();
	}}>Choose a folder of this computer</Button
>
<form class="mt-3 flex flex-col gap-2 border-t border-[var(--line)] pt-3" onsubmit={fetchIt}>
	<label class="soft"
		>Web address of a PDF
		<Input class="mt-1 w-full!" type="url" bind:value={url} required placeholder="https://" maxlength={2000} /></label
	>
	<label class="soft"
		>Folder
		<Input class="mt-1 w-full!" list="web-folders" bind:value={folder} maxlength={200} /></label
	>
	<datalist id="web-folders"
		>{#each folders as name (name)}<option value={name}></option>{/each}</datalist
	>
	<label class="flex items-center gap-2"><Checkbox bind:checked={watch} /> Watch it: look every hour whether it changed</label>
	{#if trouble}<p class="trouble" role="alert">{trouble}</p>{/if}
	<Button type="submit" kind="main" disabled={busy}>{busy ? 'Fetching…' : 'Fetch'}</Button>
	<p class="soft">The site keeps its own copy, shut until you set its door.</p>
</form>
{#if fields}<div class="mt-3 border-t border-[var(--line)] pt-3"><FieldsTable {done} /></div>{/if}
