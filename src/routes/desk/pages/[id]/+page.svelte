<!-- Writing a page: its way along the top (written, door, published), below it the editor of its layout. -->
<script lang="ts">
	import { Button, Input } from '$lib/ui/parts/controls';
	import { Drawer, Modal } from 'flowbite-svelte';
	import { untrack } from 'svelte';
	import { beforeNavigate, goto } from '$app/navigation';
	import { refresh } from '$lib/ui/parts/refresh';
	import type { Catalogue } from '#core/placing/content';
	import type { Pocket } from '#core/placing/pocket';
	import { listWords } from '#core/text/list';
	import DoorPicker from '$lib/ui/access/DoorPicker.svelte';
	import ArticleEditor from '$lib/ui/placing/article/ArticleEditor.svelte';
	import CatalogueEditor from '$lib/ui/placing/CatalogueEditor.svelte';
	import PageMore from '$lib/ui/placing/PageMore.svelte';
	import Meanwhile from '$lib/ui/placing/Meanwhile.svelte';
	import Mismatch from '$lib/ui/placing/Mismatch.svelte';
	import PocketEditor from '$lib/ui/placing/PocketEditor.svelte';
	import SilentPictures from '$lib/ui/placing/SilentPictures.svelte';
	import { audienceSaid, Writer } from '$lib/ui/placing/writer.svelte';
	import Arch from '$lib/ui/parts/Arch.svelte';
	import Popup from '$lib/ui/parts/Popup.svelte';
	import { dayText, timeText } from '$lib/ui/parts/when';
	let { data } = $props();
	const begun = () => untrack(() => new Writer(data.draft, data.mismatches, data.front));
	let writer = $state.raw(begun());
	/** The editor begins anew with what the draft is now. */
	async function anew() {
		await refresh('page');
		writer = begun();
	}
	$effect(() => writer.loaded(data.draft, data.mismatches));
	let doorOpen = $state(false);

	const position = $derived(data.draft.door.position);
	const doorWord = { shut: 'Shut', keyed: 'Keyed', ajar: 'Ajar', open: 'Open' } as const;
	const deadEnds = $derived(writer.mismatches.filter((f) => f.kind === 'dead-end'));
	const sideDoors = $derived(writer.mismatches.filter((f) => f.kind === 'side-door' && !f.intended));
	beforeNavigate(({ cancel, willUnload }) => {
		if (writer.saving === 'saved') return;
		// what was written in two places is chosen from before one goes
		if (willUnload || writer.meanwhile) cancel();
		if (!willUnload) void writer.save();
	});

	/** Goes to a preview once what is to be seen there is saved. */
	async function look(event: MouseEvent & { currentTarget: EventTarget & HTMLElement }) {
		const href = event.currentTarget.getAttribute('href');
		if (!href || event.ctrlKey || event.metaKey || event.shiftKey) return;
		event.preventDefault();
		if (await writer.save()) await goto(href);
	}
</script>

<svelte:head><title>{writer.title}, {data.site.name}</title></svelte:head>

<div class="writing">
	<div class="way">
		<a class="quiet" href="/desk/pages">Pages</a>
		<Input class="name" aria-label="Title" bind:value={writer.title} oninput={writer.touch} maxlength={200} />
		<span class="saved soft" role="status" data-testid="draft-state">
			{writer.saving === 'saved' ? `saved ${timeText(writer.savedAt, data.site.zone)}` : writer.saving === 'trouble' ? 'not saved' : 'saving …'}
		</span>
		{#if writer.publishedAt}<a class="path quiet" href={writer.path} target="_blank" rel="noopener">{writer.path}</a>{:else}<span class="path soft"
				>{writer.path}</span
			>{/if}
		{#if deadEnds.length || sideDoors.length}
			<Popup
				label={[
					deadEnds.length ? `${deadEnds.length} ${deadEnds.length === 1 ? 'dead end' : 'dead ends'}` : '',
					sideDoors.length ? `${sideDoors.length} ${sideDoors.length === 1 ? 'side door' : 'side doors'}` : ''
				]
					.filter(Boolean)
					.join(', ')}
				width={420}
			>
				<div class="found">
					{#each [...deadEnds, ...sideDoors] as found (found.placement + found.kind)}
						<Mismatch {found} zone={data.site.zone} names="document" mend={(remedy, why) => void writer.mend(found, remedy, why)} />
					{/each}
				</div>
			</Popup>
		{/if}
		<span class="stations">
			<span><Arch state="done" />Written</span><i></i>
			<Button kind="bare" onclick={() => (doorOpen = true)} title="Set the page’s door"
				><Arch state={position === 'shut' ? 'to-do' : deadEnds.length ? 'wrong' : 'done'} />Door <b>{doorWord[position]}</b></Button
			><i></i>
			<span
				><Arch state={writer.publishedAt ? 'done' : 'to-do'} />{writer.publishAt
					? `Goes out ${dayText(writer.publishAt, data.site.zone)}, ${timeText(writer.publishAt, data.site.zone)}`
					: writer.publishedAt
						? writer.changed
							? 'Published, changed since'
							: 'Published'
						: 'Not published'}</span
			>
		</span>
		<Button href="/desk/pages/{data.draft.id}/preview" onclick={look}>Preview</Button>
		<Button href="/desk/pages/{data.draft.id}/preview?on=phone" class="phone" title="Preview as on a phone" onclick={look}
			><span class="sr-only">Preview as on a phone</span><i></i></Button
		>
		{#key writer}<PageMore {writer} revisions={data.revisions} zone={data.site.zone} {anew} />{/key}
		<Button kind="main" onclick={() => void writer.publish()} disabled={writer.publishedAt !== null && !writer.changed && writer.saving === 'saved'}
			>Publish</Button
		>
	</div>
	{#if writer.aside}
		<p class="trouble m-3" role="alert">
			{writer.trouble ?? 'This page is set aside: nobody sees it.'}
			<Button onclick={() => void writer.restore()}>Restore the page</Button>
		</p>
	{:else if writer.trouble}<p class="trouble m-3" role="alert">
			{writer.trouble}
			{#if writer.meanwhile}<Button onclick={() => void writer.save()}>Look at both</Button>{/if}
		</p>{/if}
	{#key writer}
		{#if writer.layout === 'article'}
			<ArticleEditor
				{writer}
				content={data.draft.content}
				atHand={data.atHand}
				placed={data.placed}
				place={data.place}
				teaser={data.teaser}
				defaults={data.placing}
				folders={data.folders}
				topics={data.topics}
				maxUpload={data.maxUpload}
				zone={data.site.zone}
				door={data.draft.door.who}
			/>
		{:else if writer.layout === 'catalogue'}
			<CatalogueEditor {writer} content={data.draft.content as Catalogue} folders={data.folders} topics={data.topics} placed={data.placed} />
		{:else}
			<PocketEditor {writer} content={data.draft.content as Pocket} placed={data.placed} zone={data.site.zone} origin={data.origin} />
		{/if}
	{/key}
</div>

<Drawer bind:open={doorOpen} placement="right" class="w-[470px] max-w-full border-l border-[var(--line)] p-5" aria-label="Door of the page">
	<h2 class="mb-1 text-xl">Door of the page</h2>
	<p class="soft mb-3">Who may open {writer.path}. The documents on it have doors of their own.</p>
	<DoorPicker
		door={data.draft.door}
		groups={data.groups}
		allMembers={data.allMembers}
		zone={data.site.zone}
		allowance={false}
		change={(c) => void writer.changeDoor(c)}
	/>
</Drawer>

<SilentPictures {writer} />
<Meanwhile {writer} zone={data.site.zone} me={data.me.name} {anew} />
<Modal
	open={writer.asks !== null}
	onclose={() => (writer.asks = null)}
	title="Some would be turned away"
	aria-label="Some would be turned away"
	class="max-w-xl"
>
	{#if writer.asks}
		<p>
			{writer.asks.deadEnds.length === 1 ? 'One document' : `${writer.asks.deadEnds.length} placements`} on this page would not open for
			{listWords([...new Set(writer.asks.deadEnds.map((f) => `${f.audience.words} (${audienceSaid(f)})`))].slice(0, 3))}.
		</p>
		<div class="found">
			{#each writer.asks.deadEnds as found (found.placement)}
				<Mismatch
					{found}
					zone={data.site.zone}
					names="document"
					mend={async (remedy, why) => {
						const asked = writer.asks;
						await writer.mend(found, remedy, why);
						const left = writer.mismatches.filter((f) => f.kind === 'dead-end' && asked?.deadEnds.some((a) => a.placement === f.placement));
						writer.asks = asked && left.length ? { ...asked, deadEnds: left } : null;
						if (!left.length) await writer.publish();
					}}
				/>
			{/each}
		</div>
		<p class="flex gap-2 mt-4">
			<Button kind="main" onclick={() => void writer.publish({ anyway: true, at: writer.asks?.at })}>Publish all the same</Button>
			<Button onclick={() => (writer.asks = null)}>Not yet</Button>
		</p>
	{/if}
</Modal>

<style>
	.writing {
		display: grid;
		grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
		height: calc(100dvh - var(--lintel));
	}
	.writing:has(> .trouble) {
		grid-template-rows: auto auto minmax(0, 1fr);
	}
	.way {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 6px 11px;
		padding: 8px 18px;
		background: var(--sheet);
		border-bottom: 1px solid var(--line);
	}
	.way :global(.name) {
		font: 600 19px var(--title);
		border: 1px solid transparent;
		background: transparent;
		padding: 2px 6px;
		flex: 1 1 150px;
		min-width: 120px;
		max-width: 300px;
		border-radius: var(--corner);
		text-overflow: ellipsis;
	}
	.saved,
	.path {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	/* in one row as long as there is room: title, path and hour give way */
	@media (min-width: 1200px) {
		.way {
			column-gap: 8px;
		}
		.way,
		.stations {
			flex-wrap: nowrap;
		}
		.way :global(.name) {
			min-width: 90px;
		}
		.saved,
		.path {
			flex: 0 1 auto;
			min-width: 46px;
		}
		.stations,
		.way :global(:is(.btn, .popup, .pill)) {
			flex-shrink: 0;
			white-space: nowrap;
		}
	}
	.way :global(.name:hover),
	.way :global(.name:focus) {
		border-color: var(--edge);
	}
	.stations {
		margin-left: auto;
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 8px;
	}
	.stations span,
	.stations :global(button) {
		display: inline-flex;
		align-items: center;
		gap: 7px;
		white-space: nowrap;
	}
	.stations :global(button) {
		cursor: pointer;
		padding: 3px 8px;
		border: 1px solid var(--edge);
		border-radius: var(--corner);
	}
	.stations i {
		width: 10px;
		border-top: 2px solid var(--line);
	}
	.way :global(.phone) {
		padding-inline: 9px;
	}
	.way :global(.phone i) {
		width: 11px;
		height: 18px;
		border: 2px solid currentcolor;
		border-bottom-width: 4px;
		border-radius: 3px;
	}
	.found {
		display: grid;
		gap: 8px;
		max-height: 60vh;
		overflow-y: auto;
	}
	@media (max-width: 900px) {
		.writing {
			height: auto;
		}
		.stations {
			margin-left: 0;
		}
	}
</style>
