<!-- What can be done with the documents chosen: folder, topics, door, set aside; each with one undo for all. -->
<script lang="ts">
	import { refresh } from '$lib/ui/parts/refresh';
	import { page } from '$app/state';
	import { positions, type Position } from '#core/access/door';
	import { counted } from '#core/access/reach';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import Popup from '$lib/ui/parts/Popup.svelte';
	import { call, troubleOf } from '$lib/ui/parts/api';
	import { notify } from '$lib/ui/parts/notices.svelte';
	import type { Place } from '$lib/server/placing/placed';
	import AsideQuestion from './AsideQuestion.svelte';
	import { askAside, setAsideAll, type Undo } from './aside';
	import { chooseNone, chosenRows } from './chosen.svelte';

	let { folders, topics, total, aside }: { folders: readonly string[]; topics: readonly string[]; total: number; aside: boolean } = $props();

	const many = $derived(chosenRows.slugs.length);
	/** Most documents that one change takes. */
	const most = 1000;
	const doorWords = {
		shut: 'Shut: staff only',
		keyed: 'Keyed: as its groups and people say',
		ajar: 'Ajar: whoever has the address',
		open: 'Open: everyone'
	} as const;
	let folder = $state('');
	let topic = $state('');
	let busy = $state(false);

	let asks = $state<Place[] | null>(null);
	let told: Place[] = [];
	const asideWords = 'set aside. They can be restored for 30 days.';

	const change = (what: Record<string, unknown>, words: string) =>
		act(() => call<Undo & { asks?: Place[] }>('POST', '/bulk', { documents: chosenRows.slugs, ...what }), words, 'aside' in what);

	async function act(work: () => Promise<Undo & { asks?: Place[] }>, words: string, leave: boolean) {
		busy = true;
		try {
			const { undo, asks: places } = await work();
			if (places) {
				asks = told = places;
				return;
			}
			if (leave) chooseNone();
			await refresh();
			notify(`${counted(undo.length, 'document', 'documents')}: ${words}`, {
				undo: async () => {
					await call('POST', '/bulk/undo', { undo });
					await refresh();
					notify('Put back as they were.');
				}
			});
		} catch (error) {
			notify(troubleOf(error), { tone: 'wrong' });
		} finally {
			busy = false;
		}
	}

	/** Chooses all that match, beyond the page shown. */
	async function everything() {
		busy = true;
		try {
			const params = new URLSearchParams(page.url.searchParams);
			params.delete('page');
			params.delete('as');
			if (params.has('aside')) params.set('aside', 'true');
			params.set('limit', '200');
			const slugs: string[] = [];
			for (let cursor: string | null = '0'; cursor !== null && slugs.length < most;) {
				params.set('cursor', cursor);
				const part: { items: { slug: string }[]; next: string | null } = await call('GET', `/documents?${params}`);
				slugs.push(...part.items.map((i) => i.slug));
				cursor = part.next;
			}
			chosenRows.slugs = slugs.slice(0, most);
		} catch (error) {
			notify(troubleOf(error), { tone: 'wrong' });
		} finally {
			busy = false;
		}
	}
</script>

<AsideQuestion bind:places={asks} go={(takeOut) => void act(() => setAsideAll(chosenRows.slugs, takeOut ? told : []), asideWords, true)} />

<div class="bar" role="toolbar" aria-label="Change the documents chosen">
	<strong>{many} chosen</strong>
	{#if many < Math.min(total, most)}<button class="quiet" disabled={busy} onclick={everything}>Choose all {Math.min(total, most)} that match</button>{/if}
	<span class="grow"></span>
	{#if aside}
		<button class="btn main" disabled={busy} onclick={() => change({ aside: false }, 'brought back.')}>Restore</button>
	{:else}
		<Popup label="Folder" plain up disabled={busy}>
			<form
				class="flex gap-2"
				onsubmit={(e) => {
					e.preventDefault();
					void change({ folder }, folder.trim() ? `now in “${folder.trim()}”.` : 'now in no folder.');
				}}
			>
				<input
					class="field min-w-0 grow"
					list="bulk-folders"
					placeholder="Folder, or nothing for none"
					aria-label="Folder"
					bind:value={folder}
					maxlength="200"
				/>
				<button class="btn main">Move</button>
			</form>
			<datalist id="bulk-folders"
				>{#each folders as name (name)}<option value={name}></option>{/each}</datalist
			>
		</Popup>
		<Popup label="Topics" plain up disabled={busy} width={290}>
			<form
				class="flex gap-2"
				onsubmit={(e) => {
					e.preventDefault();
					void change({ addTopics: [topic] }, `“${topic.trim()}” added.`);
				}}
			>
				<input class="field min-w-0 grow" list="bulk-topics" placeholder="Topic" aria-label="Topic" bind:value={topic} required maxlength="80" />
				<button class="btn main">Add</button>
				<button type="button" class="btn" disabled={!topic.trim()} onclick={() => change({ removeTopics: [topic.trim()] }, `“${topic.trim()}” taken away.`)}
					>Take away</button
				>
			</form>
			<datalist id="bulk-topics"
				>{#each topics as name (name)}<option value={name}></option>{/each}</datalist
			>
		</Popup>
		<Popup label="Door" plain up disabled={busy} width={320}>
			<ul>
				{#each positions as position (position)}
					<li>
						<button
							class="flex w-full cursor-pointer items-center gap-3 px-2 py-1.5 text-left hover:bg-[var(--ground)]"
							onclick={() => change({ door: { position: position as Position, follows: null } }, `${doorWords[position].split(':')[0]!.toLowerCase()}.`)}
							><DoorMark {position} height={22} /><span>{doorWords[position]}</span></button
						>
					</li>
				{/each}
			</ul>
		</Popup>
		<button class="btn" disabled={busy} onclick={() => act(() => askAside(chosenRows.slugs), asideWords, true)}>Set aside</button>
	{/if}
	<button class="btn" onclick={chooseNone}>Let go</button>
</div>

<style>
	.bar {
		position: sticky;
		bottom: -16px;
		z-index: 20;
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 8px;
		margin: 10px -18px -16px;
		padding: 10px 18px;
		background: var(--brass-wash);
		border-top: 1px solid var(--brass-bright);
	}
</style>
