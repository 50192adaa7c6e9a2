<!-- Writing a page: its way along the top, the page as it will look, the shelf of documents below, the chosen placement at the right. -->
<script lang="ts">
	import { Editor } from '@tiptap/core';
	import StarterKit from '@tiptap/starter-kit';
	import { Drawer } from 'flowbite-svelte';
	import { onMount, untrack } from 'svelte';
	import { beforeNavigate, invalidateAll } from '$app/navigation';
	import type { DoorChange } from '#core/access/door';
	import { coverWidth, forms, formWords, presses, pressWords, type Form, type Press } from '#core/placing/placement';
	import DoorPicker from '$lib/ui/access/DoorPicker.svelte';
	import { chooser } from '$lib/ui/intake/chooser';
	import Arch from '$lib/ui/parts/Arch.svelte';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import { notify } from '$lib/ui/parts/notices.svelte';
	import { timeText } from '$lib/ui/parts/when';
	import { freshPlacement, placementNode, plain, shelfDrag, type AtHand } from '$lib/ui/placing/editor';

	let { data } = $props();
	const first = untrack(() => data.draft);

	let title = $state(first.title);
	let inNavigation = $state(first.inNavigation);
	let draftNumber = first.draftNumber;
	let savedAt = $state(first.draftAt);
	let publishedAt = $state(first.publishedAt);
	let changed = $state(first.changed);
	let saving = $state<'saved' | 'waiting' | 'saving' | 'trouble'>('saved');
	let trouble = $state<string | null>(null);
	let doorOpen = $state(false);
	let q = $state('');
	let holder = $state<HTMLElement>();
	let editor = $state.raw<Editor>();
	let beat = $state(0);
	let timer: ReturnType<typeof setTimeout> | undefined;

	const documents = new Map<string, AtHand>();
	$effect.pre(() => {
		for (const at of data.shelf) documents.set(at.slug, at);
	});
	const shelf = $derived(data.shelf.filter((d) => d.title.toLowerCase().includes(q.toLowerCase())));

	interface Attrs {
		id: string;
		document: string;
		form: Form;
		press: Press;
		words: string | null;
		width: number | null;
	}
	const chosen = $derived.by(() => {
		void beat;
		const node = (editor?.state.selection as { node?: { type: { name: string }; attrs: Attrs } } | undefined)?.node;
		return node?.type.name === 'placement' ? node.attrs : null;
	});
	const active = (name: string, attrs?: Record<string, unknown>) => {
		void beat;
		return editor?.isActive(name, attrs) ?? false;
	};

	onMount(() => {
		const made = new Editor({
			element: holder!,
			injectCSS: false,
			content: first.content as object,
			extensions: [
				StarterKit.configure({
					code: false,
					codeBlock: false,
					strike: false,
					underline: false,
					heading: { levels: [2, 3] },
					link: { openOnClick: false, autolink: false, protocols: ['mailto', 'tel'] }
				}),
				placementNode(documents)
			],
			editorProps: {
				attributes: { class: 'prose-page', role: 'textbox', 'aria-multiline': 'true', 'aria-label': 'Text of the page' },
				handleDrop: (view, event) => {
					const slug = event.dataTransfer?.getData(shelfDrag);
					if (!slug) return false;
					const at = view.posAtCoords({ left: event.clientX, top: event.clientY });
					put(slug, at?.pos);
					return true;
				}
			},
			onUpdate: touch,
			onTransaction: () => beat++
		});
		editor = made;
		if (data.place && documents.has(data.place)) put(data.place);
		return () => {
			clearTimeout(timer);
			made.destroy();
		};
	});

	/** Puts a document in at a position, or at the cursor. */
	function put(slug: string, at?: number) {
		if (!editor) return;
		const node = { type: 'placement', attrs: { id: freshPlacement(), document: slug, form: 'text', press: 'page' } };
		const chain = editor.chain().focus();
		const from = at ?? editor.state.selection.to;
		chain.insertContentAt(from, node).run();
		// choose it, so that its settings show
		let found: number | null = null;
		editor.state.doc.descendants((n, pos) => {
			if (n.attrs.id === node.attrs.id) found = pos;
		});
		if (found !== null) editor.chain().setNodeSelection(found).run();
	}

	function set(change: Partial<Attrs>) {
		if (!editor || !chosen) return;
		// setting attributes replaces the node, and with it the choice of it: choose it again
		const at = editor.state.selection.from;
		const attrs = { ...chosen, ...change };
		editor
			.chain()
			.command(({ tr }) => {
				tr.setNodeMarkup(at, undefined, attrs);
				return true;
			})
			.setNodeSelection(at)
			.run();
	}

	function touch() {
		saving = 'waiting';
		clearTimeout(timer);
		timer = setTimeout(() => void save(), 1200);
	}

	async function request(method: string, path: string, body: unknown) {
		const response = await fetch(`/desk/pages/${data.draft.id}/${path}`, {
			method,
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify(body)
		});
		const answer = (await response.json().catch(() => ({}))) as Record<string, string> & { draftNumber: number };
		if (!response.ok) throw new Error(answer.title ?? `The server answered ${response.status}.`);
		return answer;
	}

	let running: Promise<boolean> = Promise.resolve(true);
	/** Saves once what is being saved is through; true when the draft is safe. */
	function save(): Promise<boolean> {
		clearTimeout(timer);
		running = running.then(async () => {
			if (saving === 'saved' || !editor) return true;
			saving = 'saving';
			try {
				const answer = await request('PUT', 'draft', { title, content: plain(editor.getJSON()), inNavigation, draftNumber });
				draftNumber = answer.draftNumber;
				savedAt = answer.savedAt!;
				changed = publishedAt !== null;
				trouble = null;
				// typing that went on meanwhile waits for its own save
				if ((saving as string) === 'saving') saving = 'saved';
				return true;
			} catch (error) {
				saving = 'trouble';
				trouble =
					error instanceof TypeError
						? 'The server cannot be reached. What you wrote is still here; saving is tried again as you write.'
						: (error as Error).message;
				return false;
			}
		});
		return running;
	}

	async function publish(published: boolean) {
		if (published && !(await save())) return;
		try {
			const answer = await request('POST', 'publish', { published });
			publishedAt = answer.publishedAt ?? null;
			changed = false;
			notify(published ? `Published at ${data.draft.path}` : 'Taken down. The draft is still here.', { undo: published ? undefined : () => publish(true) });
		} catch (error) {
			notify((error as Error).message, { tone: 'wrong' });
		}
	}

	async function changeDoor(change: DoorChange) {
		try {
			await request('PATCH', 'door', change);
			await invalidateAll();
		} catch (error) {
			notify((error as Error).message, { tone: 'wrong' });
		}
	}

	function link() {
		const before = (editor?.getAttributes('link').href as string | undefined) ?? '';
		const href = prompt('Address of the link (empty takes it away)', before);
		if (href === null) return;
		if (!href.trim()) editor?.chain().focus().unsetLink().run();
		else editor?.chain().focus().setLink({ href: href.trim() }).run();
	}

	beforeNavigate(({ cancel, willUnload }) => {
		if (saving === 'saved') return;
		if (willUnload) cancel();
		else void save();
	});
	const position = $derived(data.draft.door.position);
	const doorWord = { shut: 'Shut', keyed: 'Keyed', ajar: 'Ajar', open: 'Open' } as const;
	const tools = $derived([
		{ words: 'Bold', on: active('bold'), run: () => editor?.chain().focus().toggleBold().run() },
		{ words: 'Italic', on: active('italic'), run: () => editor?.chain().focus().toggleItalic().run() },
		{ words: 'Heading', on: active('heading', { level: 2 }), run: () => editor?.chain().focus().toggleHeading({ level: 2 }).run() },
		{ words: 'Subheading', on: active('heading', { level: 3 }), run: () => editor?.chain().focus().toggleHeading({ level: 3 }).run() },
		{ words: 'List', on: active('bulletList'), run: () => editor?.chain().focus().toggleBulletList().run() },
		{ words: 'Numbers', on: active('orderedList'), run: () => editor?.chain().focus().toggleOrderedList().run() },
		{ words: 'Quote', on: active('blockquote'), run: () => editor?.chain().focus().toggleBlockquote().run() },
		{ words: 'Link', on: active('link'), run: link },
		{ words: 'Undo', on: false, run: () => editor?.chain().focus().undo().run() },
		{ words: 'Redo', on: false, run: () => editor?.chain().focus().redo().run() }
	]);
</script>

<svelte:head><title>{title}, {data.site.name}</title></svelte:head>

<div class="writing" class:chosen>
	<div class="way">
		<a class="quiet" href="/desk/pages">Pages</a>
		<input class="name" aria-label="Title" bind:value={title} oninput={touch} maxlength="200" />
		<span class="soft" role="status" data-testid="draft-state">
			{saving === 'saved' ? `draft saved ${timeText(savedAt, data.site.zone)}` : saving === 'trouble' ? 'not saved' : 'saving …'}
		</span>
		{#if publishedAt}<a class="quiet" href={data.draft.path} target="_blank" rel="noopener">{data.draft.path}</a>{:else}<span class="soft"
				>{data.draft.path}</span
			>{/if}
		<span class="stations">
			<span><Arch state="done" />Written</span><i></i>
			<button onclick={() => (doorOpen = true)} title="Set the page’s door"
				><Arch state={position === 'shut' ? 'to-do' : 'done'} />Door <b>{doorWord[position]}</b></button
			><i></i>
			<span><Arch state={publishedAt ? 'done' : 'to-do'} />{publishedAt ? (changed ? 'Published, changed since' : 'Published') : 'Not published'}</span>
		</span>
		<a class="btn" href="/desk/pages/{data.draft.id}/preview" onclick={() => void save()}>Preview</a>
		{#if publishedAt}<button class="btn" onclick={() => publish(false)}>Take down</button>{/if}
		<button class="btn main" onclick={() => publish(true)} disabled={publishedAt !== null && !changed && saving === 'saved'}>Publish</button>
	</div>
	<div class="desk">
		{#if trouble}<p class="trouble m-3" role="alert">{trouble}</p>{/if}
		<div class="tools" role="toolbar" aria-label="Formatting">
			{#each tools as tool (tool.words)}<button class:on={tool.on} aria-pressed={tool.on} onclick={tool.run}>{tool.words}</button>{/each}
			<label class="ml-auto"><input type="checkbox" bind:checked={inNavigation} onchange={touch} /> in the navigation</label>
		</div>
		<article>
			<h1>{title}</h1>
			<div bind:this={holder} class="text"></div>
		</article>
	</div>
	{#if chosen}
		{@const at = documents.get(chosen.document)}
		<aside aria-label="This placement">
			<h2>{at?.title ?? chosen.document}</h2>
			<p class="soft">this placement</p>
			<dl>
				<dt>Form</dt>
				<dd>
					{#each forms as form (form)}<button class="pill" class:on={chosen.form === form} aria-pressed={chosen.form === form} onclick={() => set({ form })}
							>{formWords[form]}</button
						>{/each}
				</dd>
				<dt>A press</dt>
				<dd>
					{#each presses as press (press)}<button
							class="pill"
							class:on={chosen.press === press}
							aria-pressed={chosen.press === press}
							onclick={() => set({ press })}>{pressWords[press]}</button
						>{/each}
				</dd>
				<dt>Words</dt>
				<dd>
					<input
						class="field w-full"
						aria-label="Words"
						placeholder={at?.title}
						value={chosen.words ?? ''}
						onchange={(e) => set({ words: e.currentTarget.value.trim() || null })}
					/>
				</dd>
				{#if chosen.form === 'cover'}
					<dt>Width</dt>
					<dd>
						<input
							class="field w-24"
							type="number"
							min="60"
							max="1200"
							aria-label="Width in px"
							value={chosen.width ?? coverWidth}
							onchange={(e) => set({ width: Math.min(1200, Math.max(60, Number(e.currentTarget.value) || coverWidth)) })}
						/>
						px
						{#if chosen.width && chosen.width !== coverWidth}<button class="quiet" onclick={() => set({ width: null })}>back to {coverWidth}</button>{/if}
					</dd>
				{/if}
				<dt>Door</dt>
				<dd>
					{#if at}<span class="flex gap-2"><DoorMark position={at.position} height={22} /> {at.sentence}</span><a
							class="quiet"
							href="/desk/documents/{at.slug}#door">Set its door</a
						>{/if}
				</dd>
			</dl>
			<button class="btn mt-4" onclick={() => editor?.chain().focus().deleteSelection().run()}>Take out</button>
		</aside>
	{/if}
	<section class="shelf" aria-label="Shelf">
		<header>
			<strong>Shelf</strong><span class="soft">press a cover to place it at the cursor, or draw it up into the page</span>
			<input class="field ml-auto" type="search" placeholder="Find on the shelf" aria-label="Find on the shelf" bind:value={q} />
		</header>
		<ul>
			<li><button class="in" onclick={() => chooser.open()}>Bring in</button></li>
			{#each shelf as at (at.slug)}
				<li>
					<button
						draggable="true"
						title="{at.title}: {at.sentence}"
						aria-label="Place {at.title}"
						ondragstart={(e) => {
							e.dataTransfer?.setData(shelfDrag, at.slug);
						}}
						onclick={() => put(at.slug)}
					>
						<img src="/d/{at.slug}/cover/300.webp?e={at.edition}" alt="" draggable="false" />
						<span class="mark"><DoorMark position={at.position} height={18} /></span>
						<small>{at.title}</small>
					</button>
				</li>
			{/each}
			{#if !shelf.length && q}<li class="soft self-center">No document is called that.</li>{/if}
		</ul>
	</section>
</div>

<Drawer bind:open={doorOpen} placement="right" class="w-[470px] max-w-full border-l border-[var(--line)] p-5" aria-label="Door of the page">
	<h2 class="mb-1 text-xl">Door of the page</h2>
	<p class="soft mb-3">Who may open {data.draft.path}. The documents on it have doors of their own.</p>
	<DoorPicker
		door={data.draft.door}
		groups={data.groups}
		allMembers={data.allMembers}
		zone={data.site.zone}
		allowance={false}
		change={(c) => void changeDoor(c)}
	/>
</Drawer>

<style>
	.writing {
		display: grid;
		grid-template: auto minmax(0, 1fr) auto / minmax(0, 1fr);
		height: calc(100dvh - var(--lintel));
	}
	.writing.chosen {
		grid-template-columns: minmax(0, 1fr) 330px;
	}
	.way {
		grid-column: 1 / -1;
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 6px 14px;
		padding: 8px 18px;
		background: var(--sheet);
		border-bottom: 1px solid var(--line);
	}
	.way .name {
		font: 600 19px var(--title);
		border: 1px solid transparent;
		background: transparent;
		padding: 2px 6px;
		width: 230px;
		border-radius: var(--corner);
		text-overflow: ellipsis;
	}
	.way .name:hover,
	.way .name:focus {
		border-color: var(--edge);
	}
	.stations {
		margin-left: auto;
		display: flex;
		align-items: center;
		gap: 8px;
	}
	.stations span,
	.stations button {
		display: inline-flex;
		align-items: center;
		gap: 7px;
		white-space: nowrap;
	}
	.stations button {
		cursor: pointer;
		padding: 3px 8px;
		border: 1px solid var(--edge);
		border-radius: var(--corner);
	}
	.stations i {
		width: 16px;
		border-top: 2px solid var(--line);
	}
	.desk {
		overflow-y: auto;
		padding: 0 20px 20px;
	}
	.tools {
		position: sticky;
		top: 0;
		z-index: 5;
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 2px;
		max-width: 760px;
		margin: 0 auto;
		padding: 8px 0;
		background: var(--ground);
	}
	.tools button {
		padding: 3px 9px;
		border: 1px solid transparent;
		border-radius: var(--corner);
		cursor: pointer;
	}
	.tools button:hover {
		border-color: var(--edge);
	}
	.tools button.on {
		background: var(--brass-wash);
		border-color: var(--brass-bright);
		color: var(--brass);
	}
	article {
		max-width: 760px;
		min-height: 60%;
		margin: 0 auto;
		padding: 30px 52px 44px;
		background: var(--sheet);
		border: 1px solid var(--line);
	}
	article h1 {
		font-size: 32px;
		margin-bottom: 12px;
	}
	.text :global(.ProseMirror) {
		outline: none;
		min-height: 220px;
		white-space: pre-wrap;
		word-wrap: break-word;
	}
	.text :global(.placement) {
		cursor: pointer;
		border-radius: 2px;
	}
	.text :global(.placement b) {
		font-weight: inherit;
	}
	.text :global(.placement i) {
		font-style: normal;
		color: var(--ink-soft);
		font-size: 0.88em;
	}
	.text :global(.placement.text b) {
		color: var(--verdigris);
		text-decoration: underline;
		text-underline-offset: 3px;
	}
	.text :global(.placement.button) {
		display: inline-flex;
		gap: 10px;
		align-items: baseline;
		background: var(--verdigris);
		color: var(--on-verdigris);
		padding: 8px 18px;
		border-radius: var(--corner);
		font-weight: 600;
	}
	.text :global(.placement.button i) {
		color: inherit;
		font-weight: 400;
	}
	.text :global(.placement.cover) {
		float: left;
		max-width: 100%;
		margin: 4px 24px 10px 0;
	}
	.text :global(.placement.cover img) {
		width: 100%;
		border: 1px solid var(--line);
		background: #fff;
	}
	.text :global(.placement.cover b) {
		display: block;
		font: 600 16px var(--title);
	}
	.text :global(.ProseMirror-selectednode) {
		outline: 2px solid var(--brass-bright);
		outline-offset: 3px;
	}
	aside {
		overflow-y: auto;
		background: var(--sheet);
		border-left: 1px solid var(--line);
		padding: 18px 20px;
	}
	aside h2 {
		font-size: 18px;
	}
	dl {
		display: grid;
		grid-template-columns: 64px 1fr;
		margin-top: 10px;
	}
	dt,
	dd {
		border-top: 1px solid var(--line);
		padding: 9px 0;
	}
	dt {
		color: var(--ink-soft);
	}
	dd {
		display: flex;
		flex-wrap: wrap;
		gap: 5px;
		align-items: center;
	}
	.shelf {
		grid-column: 1 / -1;
		background: var(--sunk);
		border-top: 1px solid var(--line);
		padding: 8px 18px 0;
	}
	.shelf header {
		display: flex;
		align-items: center;
		gap: 12px;
	}
	.shelf strong {
		font: 600 16px var(--title);
	}
	.shelf .field {
		height: 28px;
		font-size: 13px;
		width: 180px;
	}
	.shelf ul {
		display: flex;
		gap: 12px;
		overflow-x: auto;
		align-items: flex-end;
		padding: 8px 2px 0;
		border-bottom: 5px solid color-mix(in oklab, var(--edge) 55%, var(--sunk));
	}
	.shelf button {
		position: relative;
		display: block;
		cursor: grab;
	}
	.shelf img {
		height: 84px;
		max-width: 130px;
		object-fit: cover;
		object-position: top;
		border: 1px solid var(--line);
		background: #fff;
	}
	.shelf small {
		display: block;
		max-width: 84px;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		font-size: 11px;
		padding: 2px 0 3px;
	}
	.shelf .mark {
		position: absolute;
		right: 2px;
		bottom: 20px;
		background: var(--sheet);
		padding: 1px;
	}
	.shelf .in {
		height: 84px;
		width: 62px;
		border: 1px dashed var(--edge);
		font-size: 12px;
		margin-bottom: 21px;
		cursor: pointer;
	}
	@media (max-width: 900px) {
		.writing,
		.writing.chosen {
			grid-template-columns: minmax(0, 1fr);
			height: auto;
		}
		.stations {
			margin-left: 0;
		}
		article {
			padding: 20px;
		}
	}
</style>
