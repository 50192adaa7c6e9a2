<!-- The desk: the lintel above every room; PDFs dropped anywhere start the intake. -->
<script lang="ts">
	import { Fileupload } from '$lib/ui/parts/controls';
	import '$lib/ui/theme.css';
	import { goto } from '$app/navigation';
	import { goWith, refresh } from '$lib/ui/parts/refresh';
	import { navigating, page } from '$app/state';
	import { Modal, ThemeProvider } from 'flowbite-svelte';
	import { look } from '$lib/ui/parts/controls/look';
	import { onMount } from 'svelte';
	import Lintel from '$lib/ui/parts/Lintel.svelte';
	import Notices from '$lib/ui/parts/Notices.svelte';
	import SignInAgain from '$lib/ui/parts/SignInAgain.svelte';
	import Tray from '$lib/ui/intake/Tray.svelte';
	import { chosenFiles, droppedFiles } from '$lib/ui/intake/dropped-files';
	import { held, holdsFiles } from '$lib/ui/intake/held.svelte';
	import { bringIn, leavingBreaksOff, onBroughtIn, takeUp, tray, underWay } from '$lib/ui/intake/tray.svelte';
	import { notify } from '$lib/ui/parts/notices.svelte';
	import { chooser } from '$lib/ui/intake/chooser';
	import { isTyping, shortcutWords } from '$lib/ui/parts/shortcuts';
	import { rooms } from '$lib/ui/parts/rooms';

	let { data, children } = $props();
	let find = $state<HTMLInputElement>();
	let input = $state<HTMLInputElement>();
	let folder = $state<HTMLInputElement>();
	/** The title of the document whose sheet the files are over: there they become a new edition. */
	let overSheet = $state<string | null>(null);
	let refreshing: ReturnType<typeof setTimeout> | undefined;
	let help = $state(false);

	onMount(() => {
		chooser.open = () => input?.click();
		chooser.openFolder = () => folder?.click();
		onBroughtIn((entry) => {
			// a single file shows itself, where nothing else is open or about to be
			if (!navigating.to && page.url.pathname === '/desk/documents' && entry.document && entry.alone && !tray.entries.some(underWay))
				void goWith(`/desk/documents/${entry.document.slug}`, ['documents'], { noScroll: true, keepFocus: true });
			else
				refreshing ??= setTimeout(() => {
					refreshing = undefined;
					void refresh();
				}, 800);
		});
		void takeUp();
	});

	const sheetUnder = (event: DragEvent) => (event.target as HTMLElement | null)?.closest<HTMLElement>('[data-edition-of]')?.dataset ?? null;
	async function dropped(event: DragEvent) {
		event.preventDefault();
		const sheet = sheetUnder(event);
		// a drop carries what is dropped
		const { files, leftOut } = await droppedFiles(event.dataTransfer!);
		if (sheet && files.length > 1) notify('Several files cannot be one edition: they come in as documents of their own.');
		// a sheet that takes files takes them as editions
		bringIn(files, data.maxUpload, sheet && files.length === 1 ? sheet.editionOf! : null);
		if (leftOut) notify(`${leftOut} files in the folder are no PDFs and were left out.`);
	}

	function keys(event: KeyboardEvent) {
		if (isTyping(event)) return;
		const room = rooms[Number(event.key) - 1];
		if (room) void goto(room.href);
		else if (event.key === '/') find?.focus();
		else if (event.key === 'b') input?.click();
		else if (event.key === '?') help = true;
		else return;
		event.preventDefault();
	}
</script>

<svelte:window
	onkeydown={keys}
	ondragenter={(e) => {
		if (holdsFiles(e)) held.files++;
	}}
	ondragleave={(e) => {
		if (holdsFiles(e)) held.files = Math.max(0, held.files - 1);
	}}
	ondragover={(e) => {
		if (!holdsFiles(e)) return;
		e.preventDefault();
		overSheet = sheetUnder(e)?.editionTitle ?? null;
	}}
	ondrop={(e) => {
		held.files = 0;
		// a page being written takes files at the spot itself
		if (holdsFiles(e) && !e.defaultPrevented) void dropped(e);
	}}
	onbeforeunload={(e) => {
		if (leavingBreaksOff()) e.preventDefault();
	}}
/>

<ThemeProvider theme={look}>
	<Lintel siteName={data.site.name} person={data.me} bind:find />
	<Fileupload
		bind:elementRef={input}
		multiple
		accept="application/pdf,.pdf"
		unseen
		tabindex={-1}
		aria-label="Choose PDF files to bring in"
		onchange={(e) => {
			bringIn(e.currentTarget.files ?? [], data.maxUpload);
			e.currentTarget.value = '';
		}}
	/>
	<Fileupload
		bind:elementRef={folder}
		multiple
		webkitdirectory
		unseen
		tabindex={-1}
		aria-label="Choose a folder of PDF files to bring in"
		onchange={(e) => {
			bringIn(chosenFiles(e.currentTarget.files ?? []), data.maxUpload);
			e.currentTarget.value = '';
		}}
	/>
	<main>{@render children()}</main>
	{#if held.files}
		<div class="drop" aria-hidden="true"><p>{overSheet ? `Let go to put in a new edition of “${overSheet}”` : 'Let go to bring in'}</p></div>
	{/if}
	<Tray />
	<Notices />
	<SignInAgain email={data.me.email} />
	<Modal title="Shortcuts" aria-label="Shortcuts" bind:open={help} size="xs" outsideclose>
		<dl class="grid grid-cols-[80px_1fr] gap-y-1.5">
			{#each shortcutWords as [key, words] (key)}
				<dt><kbd class="rounded border border-[var(--edge)] px-1.5">{key}</kbd></dt>
				<dd>{words}</dd>
			{/each}
		</dl>
		<p><a href="/desk/help" onclick={() => (help = false)}>Handbook</a>, with the words that are used here</p>
	</Modal>
</ThemeProvider>

<style>
	/* a page being written has spots of its own */
	:global(body:has([data-spots])) .drop {
		display: none;
	}
	.drop {
		position: fixed;
		inset: var(--lintel) 0 0;
		z-index: 50;
		display: grid;
		place-items: center;
		background: color-mix(in oklab, var(--verdigris-wash) 85%, transparent);
		border: 3px dashed var(--verdigris);
		pointer-events: none;
		font: 600 28px var(--title);
		color: var(--verdigris);
	}
</style>
