<!-- What the cover shows: a page, a picture of one's own cut to size, or an icon found by a word; and words for those who do not see it. -->
<script lang="ts">
	import { Button, Fileupload, Input, Range } from '$lib/ui/parts/controls';
	import { refresh } from '$lib/ui/parts/refresh';
	import { Modal } from 'flowbite-svelte';
	import Cropper from 'svelte-easy-crop';
	import type { Cover } from '#core/documents/cover';
	import { act, soughtFor } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import { notify } from '$lib/ui/parts/notices.svelte';
	import SavedField from './SavedField.svelte';

	let {
		open = $bindable(false),
		slug,
		pages,
		edition,
		cover,
		alt,
		sendAlt
	}: {
		open: boolean;
		slug: string;
		pages: number;
		edition: number;
		cover: Cover | null;
		alt: string;
		sendAlt: (text: string) => Promise<void>;
	} = $props();

	type Way = 'page' | 'picture' | 'icon';
	const ways: readonly (readonly [Way, string])[] = [
		['page', 'A page'],
		['picture', 'Own picture'],
		['icon', 'An icon']
	];
	let way = $state<Way>('page');
	let shown = $state(12);
	let picture = $state<{ address: string; image: HTMLImageElement } | null>(null);
	let crop = $state({ x: 0, y: 0 });
	let zoom = $state(1);
	let shape = $state(210 / 297);
	let area = $state({ x: 0, y: 0, width: 0, height: 0 });
	let word = $state('');
	let icons = $state<{ name: string; svg: string }[]>([]);
	let busy = $state(false);
	const pageNow = $derived(cover === null ? 1 : cover.kind === 'page' ? cover.page : null);

	async function done(change: () => Promise<unknown>, words: string) {
		busy = true;
		const show = async () => {
			await refresh();
			open = false;
		};
		await act(words, change, null, { show });
		busy = false;
	}
	const choosePage = (page: number) =>
		done(() => call('patch /documents/{slug}', { path: { slug }, body: { coverPage: page === 1 ? null : page } }), `The cover shows page ${page}.`);
	const chooseIcon = (name: string) => done(() => call('post /documents/{slug}/cover', { path: { slug }, body: { icon: name } }), 'The cover shows an icon.');

	function load(file: File | undefined) {
		if (!file) return;
		const address = URL.createObjectURL(file);
		const image = new Image();
		image.onload = () => {
			crop = { x: 0, y: 0 };
			zoom = 1;
			picture = { address, image };
		};
		image.onerror = () => notify(`“${file.name}” is not a picture that can be used. PNG, JPEG and WebP can.`, { tone: 'wrong' });
		image.src = address;
	}
	async function sendPicture() {
		if (!picture) return;
		const { image } = picture;
		const canvas = document.createElement('canvas');
		const scale = Math.min(1, 1200 / area.width);
		canvas.width = Math.max(1, Math.round(area.width * scale));
		canvas.height = Math.max(1, Math.round(area.height * scale));
		// a canvas without another context has this one
		canvas.getContext('2d')!.drawImage(image, area.x, area.y, area.width, area.height, 0, 0, canvas.width, canvas.height);
		const blob = await new Promise<Blob | null>((made) => canvas.toBlob(made, 'image/png'));
		const form = new FormData();
		// a canvas of more than no pixels gives one
		form.append('file', blob!, 'cover.png');
		await done(() => call('post /documents/{slug}/cover', { path: { slug }, body: form }), 'The cover shows your picture.');
		URL.revokeObjectURL(picture.address);
		picture = null;
	}
	let asked = 0;
	async function findIcons() {
		const turn = ++asked;
		const items = await soughtFor(call('get /icons', { query: { q: word } }));
		if (turn === asked && items) icons = items;
	}
	$effect(() => {
		if (way === 'icon' && !icons.length) void findIcons();
	});
</script>

<Modal title="Cover" aria-label="Cover" bind:open size="md" outsideclose>
	<div class="flex gap-1" role="group" aria-label="What the cover shows">
		{#each ways as [value, words] (value)}
			<Button kind="pill" class={{ on: way === value }} aria-pressed={way === value} onclick={() => (way = value)}>{words}</Button>
		{/each}
	</div>
	{#if way === 'page'}
		{#if pages}
			<ul class="leaves">
				{#each Array.from({ length: Math.min(shown, pages) }, (_, i) => i + 1) as page (page)}
					<li>
						<Button
							kind="bare"
							class={{ on: page === pageNow }}
							disabled={busy}
							onclick={() => choosePage(page)}
							aria-label="Page {page}"
							aria-pressed={page === pageNow}
						>
							<img src="/d/{slug}/leaf/{page}.webp?w=300&e={edition}" alt="" loading="lazy" /><span>{page}</span>
						</Button>
					</li>
				{/each}
			</ul>
			{#if shown < pages}<Button onclick={() => (shown += 24)}>More pages</Button>{/if}
		{:else}<p class="soft">Its pages cannot be shown yet.</p>{/if}
	{:else if way === 'picture'}
		{#if picture}
			<div class="crop">
				<Cropper
					image={picture.address}
					bind:crop
					bind:zoom
					aspect={shape}
					oncropcomplete={(e: { pixels: typeof area }) => {
						area = e.pixels;
					}}
				/>
			</div>
			<div class="flex flex-wrap items-center gap-3">
				<label class="flex items-center gap-2">Size <Range min="1" max="4" step="0.01" bind:value={zoom} /></label>
				<span class="flex gap-1" role="group" aria-label="Shape">
					{#each [['Upright', 210 / 297], ['Square', 1], ['Lying', 297 / 210]] as const as [words, ratio] (words)}
						<Button kind="pill" class={{ on: shape === ratio }} aria-pressed={shape === ratio} onclick={() => (shape = ratio)}>{words}</Button>
					{/each}
				</span>
				<Button kind="main" class="ml-auto" disabled={busy || !area.width} onclick={sendPicture}>Use this part</Button>
			</div>
		{:else}
			<label class="own">
				<span>Choose a picture: PNG, JPEG or WebP</span>
				<Fileupload accept="image/png,image/jpeg,image/webp" onchange={(e) => load(e.currentTarget.files?.[0])} />
			</label>
		{/if}
	{:else}
		<Input
			class="w-full!"
			type="search"
			placeholder="A word: map, book, water, calendar"
			aria-label="A word for the icon"
			bind:value={word}
			oninput={findIcons}
		/>
		<ul class="icons">
			{#each icons as icon (icon.name)}
				<li>
					<Button
						kind="bare"
						disabled={busy}
						title={icon.name.replaceAll('-', ' ')}
						aria-label={icon.name.replaceAll('-', ' ')}
						onclick={() => chooseIcon(icon.name)}><img src="data:image/svg+xml,{encodeURIComponent(icon.svg)}" alt="" width="34" height="34" /></Button
					>
				</li>
			{:else}<li class="soft">No icon goes by “{word}”.</li>{/each}
		</ul>
	{/if}
	<SavedField
		label="What the cover shows, for those who do not see it"
		value={alt}
		send={sendAlt}
		max={500}
		placeholder="Left empty: “Cover of” and the title"
	/>
</Modal>

<style>
	.leaves {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(96px, 1fr));
		gap: 10px;
		max-height: 46vh;
		overflow: auto;
	}
	.leaves :global(button) {
		width: 100%;
		padding: 5px;
		cursor: pointer;
		border: 1px solid transparent;
		border-radius: var(--corner);
		text-align: center;
	}
	.leaves :global(button.on) {
		border-color: var(--brass-bright);
		background: var(--brass-wash);
	}
	.leaves :global(button:hover) {
		border-color: var(--edge);
	}
	.leaves img {
		width: 100%;
		aspect-ratio: 210 / 297;
		object-fit: contain;
		background: var(--sunk);
	}
	.crop {
		position: relative;
		height: 320px;
		background: var(--sunk);
	}
	.own {
		display: grid;
		gap: 10px;
		justify-items: center;
		padding: 44px 20px;
		border: 1px dashed var(--edge);
	}
	.icons {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(58px, 1fr));
		gap: 4px;
		max-height: 40vh;
		overflow: auto;
	}
	.icons :global(button) {
		padding: 11px;
		cursor: pointer;
		border: 1px solid transparent;
		border-radius: var(--corner);
		background: #f4f1ea;
	}
	.icons :global(button:hover) {
		border-color: var(--edge);
	}
</style>
