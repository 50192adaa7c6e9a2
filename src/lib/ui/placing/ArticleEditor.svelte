<!-- Writing an article: the page as it will look, the shelf of documents below, the chosen placement at the right. -->
<script lang="ts">
	import { Editor } from '@tiptap/core';
	import { NodeSelection, TextSelection } from '@tiptap/pm/state';
	import { addColumnAfter, addRowAfter, deleteColumn, deleteRow, deleteTable, isInTable } from '@tiptap/pm/tables';
	import StarterKit from '@tiptap/starter-kit';
	import { onMount, tick, untrack } from 'svelte';
	import { SvelteMap } from 'svelte/reactivity';
	import {
		defaultsOf,
		forms,
		formWords,
		presses,
		pressWords,
		settingsOfForm,
		type Form,
		type KeptPlacement,
		type PlacementDefaults
	} from '#core/placing/placement';
	import { chooser } from '$lib/ui/intake/chooser';
	import { bringIn, type TrayEntry } from '$lib/ui/intake/tray.svelte';
	import DoorMark from '$lib/ui/parts/DoorMark.svelte';
	import { act, soughtFor } from '$lib/ui/parts/act';
	import { call } from '$lib/ui/parts/api';
	import { notify } from '$lib/ui/parts/notices.svelte';
	import {
		arrivingKey,
		Column,
		Columns,
		flagsKey,
		keptContent,
		freshPlacement,
		marks,
		newTable,
		PictureNode,
		placementNode,
		placeOfArriving,
		plain,
		shelfDrag,
		tables
	} from './editor';
	import Mismatch from './Mismatch.svelte';
	import SettingFields from './SettingFields.svelte';
	import type { Writer } from './writer.svelte';
	import type { Remedy } from '#core/placing/mismatch';
	import type { MismatchJson } from '$lib/server/placing/mismatches';
	import type { AtHand } from '$lib/server/placing/contract';

	let {
		writer,
		content,
		atHand,
		placed,
		place,
		defaults,
		maxUpload,
		zone
	}: {
		writer: Writer;
		content: unknown;
		/** The newest documents. */
		atHand: readonly AtHand[];
		/** Those that stand on the page. */
		placed: readonly AtHand[];
		/** A document to be placed at once. */
		place: string | null;
		defaults: PlacementDefaults;
		maxUpload: number;
		zone: string;
	} = $props();

	let holder = $state<HTMLElement>();
	let editor = $state.raw<Editor>();
	let beat = $state(0);
	let q = $state('');
	let found = $state.raw<readonly AtHand[] | null>(null);
	let placing = $state(false);
	let placeQ = $state('');
	let placeAt = $state(0);
	let arriving = $state<{ id: number; entry: TrayEntry; dom: HTMLElement }[]>([]);
	let lastArriving = 0;

	const documents = new SvelteMap<string, AtHand>();
	$effect.pre(() => {
		for (const at of [...placed, ...atHand, ...(found ?? [])]) documents.set(at.slug, at);
	});
	const shelf = $derived(q.trim() && found ? found : atHand);
	/** Placements that would turn somebody away, by their ids; the editor's decorations look here. */
	const flags = new Map<string, string>();
	$effect(() => {
		const found = writer.mismatches;
		untrack(() => {
			flags.clear();
			for (const f of found) if (!f.intended && flags.get(f.placement) !== 'dead-end') flags.set(f.placement, f.kind);
			editor?.view.dispatch(editor.state.tr.setMeta(flagsKey, true).setMeta('addToHistory', false));
		});
	});

	const chosen = $derived.by(() => {
		void beat;
		const node = (editor?.state.selection as { node?: { type: { name: string }; attrs: Record<string, unknown> } } | undefined)?.node;
		return node?.type.name === 'placement' ? (plain(node.attrs) as KeptPlacement) : null;
	});
	const chosenPicture = $derived.by(() => {
		void beat;
		const node = (editor?.state.selection as { node?: { type: { name: string }; attrs: { alt: string | null } } } | undefined)?.node;
		return node?.type.name === 'picture' ? node.attrs : null;
	});
	const ofChosen = $derived(chosen ? writer.mismatches.filter((f) => f.placement === chosen.id) : []);
	const inTable = $derived.by(() => {
		void beat;
		return editor ? isInTable(editor.state) : false;
	});
	const active = (name: string, attrs?: Record<string, unknown>) => {
		void beat;
		return editor?.isActive(name, attrs) ?? false;
	};

	const addressPattern = /^\s*(https?:\/\/[^/\s]+)?\/d\/([a-z0-9-]+)(?:\/(?:read|file))?(?:[?#]\S*)?\s*$/;

	onMount(() => {
		const made = new Editor({
			element: holder!,
			injectCSS: false,
			content: content as object,
			extensions: [
				StarterKit.configure({
					code: false,
					codeBlock: false,
					strike: false,
					underline: false,
					heading: { levels: [2, 3] },
					link: { openOnClick: false, autolink: false, protocols: ['mailto', 'tel'] }
				}),
				placementNode(documents, defaults),
				PictureNode,
				Columns,
				Column,
				...tables,
				marks(flags)
			],
			editorProps: {
				attributes: { class: 'prose-page', role: 'textbox', 'aria-multiline': 'true', 'aria-label': 'Text of the page' },
				// writing on after a placement was put in leaves it there: words go behind it
				handleTextInput: (view, _from, _to, typed) => {
					const { selection } = view.state;
					if (!(selection instanceof NodeSelection) || selection.node.type.name !== 'placement') return false;
					const tr = view.state.tr.insertText(typed, selection.to);
					view.dispatch(tr.setSelection(TextSelection.create(tr.doc, selection.to + typed.length)));
					return true;
				},
				handleKeyDown: (view, event) => {
					const { selection } = view.state;
					if (event.key === 'Enter' && selection instanceof NodeSelection && selection.node.type.name === 'placement') {
						editor?.chain().setTextSelection(selection.to).splitBlock().run();
						return true;
					}
					// a command at the cursor: Alt and p
					if (event.altKey && !event.ctrlKey && !event.metaKey && event.code === 'KeyP') {
						void askPlace();
						return true;
					}
					return false;
				},
				handlePaste: (_view, event) => {
					const text = event.clipboardData?.getData('text/plain') ?? '';
					const [, origin, slug] = addressPattern.exec(text) ?? [];
					if (!slug || (origin && origin !== location.origin)) return false;
					void known(slug).then((is) => (is ? put(slug) : editor?.chain().focus().insertContent(text).run()));
					return true;
				},
				handleDrop: (view, event) => {
					const at = view.posAtCoords({ left: event.clientX, top: event.clientY })?.pos ?? view.state.selection.to;
					const slug = event.dataTransfer?.getData(shelfDrag);
					if (slug) {
						put(slug, at);
						return true;
					}
					const files = [...(event.dataTransfer?.files ?? [])];
					if (!files.length) return false;
					const pictures = files.filter((f) => /^image\/(png|jpeg|webp)$/.test(f.type));
					for (const file of pictures) void putPicture(file, at);
					arrive(
						files.filter((f) => !pictures.includes(f)),
						at
					);
					return true;
				}
			},
			onUpdate: writer.touch,
			onTransaction: () => beat++
		});
		// The library puts an empty line at the end of a page with the first transaction, whatever it is. Had that been the one of the focus, the
		// press that brought the focus would have chosen nothing.
		made.view.updateState(made.state.apply(made.state.tr.setMeta('addToHistory', false)));
		editor = made;
		writer.content = () => keptContent(made.getJSON());
		if (place && documents.has(place)) put(place);
		return () => {
			writer.stop();
			made.destroy();
		};
	});

	async function known(slug: string): Promise<boolean> {
		if (documents.has(slug)) return true;
		const answer = await call<{ items: AtHand[] }>('GET', `/shelf?slug=${encodeURIComponent(slug)}`);
		for (const at of answer.items) documents.set(slug, at);
		return answer.items.length > 0;
	}

	let asked = 0;
	async function find(word: string): Promise<void> {
		const mine = ++asked;
		if (!word.trim()) {
			found = null;
			return;
		}
		const items = await soughtFor(call<{ items: AtHand[] }>('GET', `/shelf?q=${encodeURIComponent(word)}`));
		if (mine === asked && items) found = items;
	}

	/** Puts a document in at a position, or at the cursor, and chooses it, so that its settings show. */
	function put(slug: string, at?: number, form: Form = 'text') {
		if (!editor) return;
		const press = defaults[form]?.press ?? 'page';
		const node = { type: 'placement', attrs: { id: freshPlacement(), document: slug, form, press } };
		editor
			.chain()
			.focus()
			.insertContentAt(at ?? editor.state.selection.to, node)
			.run();
		choose(node.attrs.id);
	}
	function choose(id: string) {
		let at: number | null = null;
		editor?.state.doc.descendants((n, pos) => {
			if (n.attrs.id === id) at = pos;
		});
		if (at !== null) editor?.chain().setNodeSelection(at).run();
	}

	/** Sets attributes of what is chosen: a placement or a picture. */
	function set(change: Record<string, unknown>) {
		if (!editor || !(chosen ?? chosenPicture)) return;
		// setting attributes replaces the node, and with it the choice of it: choose it again
		const at = editor.state.selection.from;
		const node = editor.state.doc.nodeAt(at)!;
		const attrs = { ...node.attrs, ...change };
		editor
			.chain()
			.command(({ tr }) => {
				tr.setNodeMarkup(at, undefined, attrs);
				return true;
			})
			.setNodeSelection(at)
			.run();
	}

	/** A change of the form drops settings that the other form has not, and takes its usual press. */
	function setForm(form: Form) {
		const before = chosen!;
		const dropped = Object.fromEntries(settingsOfForm[before.form].filter((n) => !settingsOfForm[form].includes(n)).map((n) => [n, null]));
		set({ form, ...dropped });
	}

	/** Files dropped on the page: brought in with their progress shown in place, then placed. */
	function arrive(files: File[], at: number) {
		if (!files.length || !editor) return;
		for (const entry of bringIn(files, maxUpload)) {
			const id = ++lastArriving;
			const dom = document.createElement('span');
			dom.className = 'arriving';
			dom.setAttribute('role', 'status');
			editor.view.dispatch(editor.state.tr.setMeta(arrivingKey, { add: { id, dom, at } }).setMeta('addToHistory', false));
			arriving.push({ id, entry, dom });
		}
	}
	const remove = (id: number) => {
		editor?.view.dispatch(editor.state.tr.setMeta(arrivingKey, { remove: id }).setMeta('addToHistory', false));
		arriving = arriving.filter((a) => a.id !== id);
	};
	function land(id: number, slug: string) {
		const at = editor ? placeOfArriving(editor.state, id) : null;
		remove(id);
		void known(slug).then(() => put(slug, at ?? undefined));
	}
	$effect(() => {
		for (const { id, entry, dom } of arriving) {
			const { state, name, progress, trouble, document: made, known: same } = entry;
			if (made && state === 'in') untrack(() => land(id, made.slug));
			else if (state === 'refused') {
				untrack(() => remove(id));
				notify(trouble ?? `“${name}” was refused.`, { tone: 'wrong' });
			} else if (state === 'stopped') untrack(() => remove(id));
			else if (state === 'known' && same[0]) {
				const { slug, title } = same[0];
				const button = document.createElement('button');
				button.textContent = `“${title}” is here already: place it`;
				button.onclick = () => {
					entry.state = 'stopped';
					land(id, slug);
				};
				dom.replaceChildren(button);
			} else
				dom.textContent = state === 'uploading' ? `${name}, ${Math.round(progress * 100)} %` : `${name}, ${state === 'checking' ? 'checking' : 'waiting'} …`;
		}
	});

	/** Puts a block in behind what is chosen, which stays. */
	const putBlock = (block: object, at?: number) =>
		editor
			?.chain()
			.focus()
			.insertContentAt(at ?? editor.state.selection.to, block)
			.run();

	async function putPicture(file: File, at?: number) {
		const form = new FormData();
		form.append('file', file);
		await act('', () => call<{ picture: string; width: number; height: number }>('POST', '/pictures', form), null, {
			show: ({ picture, width, height }) => putBlock({ type: 'picture', attrs: { picture, width, height } }, at)
		});
	}
	function link() {
		const before = (editor?.getAttributes('link').href as string | undefined) ?? '';
		const href = prompt('Address of the link (empty takes it away)', before);
		if (href === null) return;
		if (!href.trim()) editor?.chain().focus().unsetLink().run();
		else editor?.chain().focus().setLink({ href: href.trim() }).run();
	}

	let placeField = $state<HTMLInputElement>();
	async function askPlace() {
		placing = true;
		placeQ = '';
		placeAt = 0;
		found = null;
		await tick();
		placeField?.focus();
	}
	const candidates = $derived((placeQ.trim() && found ? found : atHand).slice(0, 8));
	function placeKeys(event: KeyboardEvent) {
		if (event.key === 'ArrowDown') placeAt = Math.min(candidates.length - 1, placeAt + 1);
		else if (event.key === 'ArrowUp') placeAt = Math.max(0, placeAt - 1);
		else if (event.key === 'Enter' && candidates[placeAt]) {
			placing = false;
			put(candidates[placeAt]!.slug);
		} else if (event.key === 'Escape') {
			placing = false;
			editor?.commands.focus();
		} else return;
		event.preventDefault();
		event.stopPropagation();
	}

	/** Remedies for what stands here: those that change the content the editor does itself, so that undo covers them. */
	function mend(f: MismatchJson, remedy: Remedy, why?: string) {
		if (remedy === 'take-out' || remedy === 'locked') {
			choose(f.placement);
			if (remedy === 'take-out') editor?.chain().focus().deleteSelection().run();
			else set({ locked: true });
		} else void writer.mend(f, remedy, why);
	}

	const run = (command: (state: Editor['state'], dispatch: Editor['view']['dispatch']) => boolean) => () => {
		command(editor!.state, editor!.view.dispatch);
		editor!.commands.focus();
	};
	const tools = $derived([
		{ words: 'Bold', on: active('bold'), run: () => editor?.chain().focus().toggleBold().run() },
		{ words: 'Italic', on: active('italic'), run: () => editor?.chain().focus().toggleItalic().run() },
		{ words: 'Heading', on: active('heading', { level: 2 }), run: () => editor?.chain().focus().toggleHeading({ level: 2 }).run() },
		{ words: 'Subheading', on: active('heading', { level: 3 }), run: () => editor?.chain().focus().toggleHeading({ level: 3 }).run() },
		{ words: 'List', on: active('bulletList'), run: () => editor?.chain().focus().toggleBulletList().run() },
		{ words: 'Numbers', on: active('orderedList'), run: () => editor?.chain().focus().toggleOrderedList().run() },
		{ words: 'Quote', on: active('blockquote'), run: () => editor?.chain().focus().toggleBlockquote().run() },
		{ words: 'Link', on: active('link'), run: link },
		{
			words: 'Two columns',
			on: active('columns'),
			run: () => putBlock({ type: 'columns', content: [0, 1].map(() => ({ type: 'column', content: [{ type: 'paragraph' }] })) })
		},
		...(inTable
			? [
					{ words: 'Row', on: false, run: run(addRowAfter) },
					{ words: 'Column', on: false, run: run(addColumnAfter) },
					{ words: 'Row out', on: false, run: run(deleteRow) },
					{ words: 'Column out', on: false, run: run(deleteColumn) },
					{ words: 'Table out', on: false, run: run(deleteTable) }
				]
			: [{ words: 'Table', on: false, run: () => putBlock(newTable(3, 3)) }])
	]);
	const steps = [
		{ words: 'Undo', on: false, run: () => editor?.chain().focus().undo().run() },
		{ words: 'Redo', on: false, run: () => editor?.chain().focus().redo().run() }
	];
</script>

{#snippet press(tool: { words: string; on: boolean; run: () => unknown })}<button class:on={tool.on} aria-pressed={tool.on} onclick={tool.run}
		>{tool.words}</button
	>{/snippet}

<div class="article" class:chosen={chosen ?? chosenPicture}>
	<div class="desk">
		<div class="tools" role="toolbar" aria-label="Formatting">
			{#each tools as tool (tool.words)}{@render press(tool)}{/each}
			<label class="tool"
				>Picture<input
					class="sr-only"
					type="file"
					accept="image/png,image/jpeg,image/webp"
					onchange={(e) => {
						const file = e.currentTarget.files?.[0];
						e.currentTarget.value = '';
						if (file) void putPicture(file);
					}}
				/></label
			>
			{#each steps as tool (tool.words)}{@render press(tool)}{/each}
			<button class="place" title="Alt and p" onclick={() => void askPlace()}>Place a document</button>
			{#if placing}
				<div class="asking" role="dialog" aria-label="Place a document">
					<input
						class="field"
						type="search"
						bind:this={placeField}
						placeholder="Part of its title"
						aria-label="Which document"
						role="combobox"
						aria-expanded="true"
						aria-controls="place-list"
						aria-activedescendant="place-{placeAt}"
						bind:value={placeQ}
						oninput={() => {
							placeAt = 0;
							void find(placeQ);
						}}
						onkeydown={placeKeys}
						onblur={() => (placing = false)}
					/>
					<!-- pressing a line leaves the focus in the field, so that the list stands until the press is done -->
					<ul id="place-list" role="listbox" aria-label="Documents" onmousedown={(e) => e.preventDefault()}>
						{#each candidates as at, i (at.slug)}
							<li id="place-{i}" role="option" aria-selected={i === placeAt}>
								<button
									tabindex="-1"
									onclick={() => {
										placing = false;
										put(at.slug);
									}}><DoorMark position={at.position} height={16} />{at.title}</button
								>
							</li>
						{:else}<li class="soft p-2">No document is called that.</li>{/each}
					</ul>
				</div>
			{/if}
		</div>
		<article>
			<h1>{writer.title}</h1>
			<div bind:this={holder} class="text"></div>
		</article>
	</div>
	{#if chosen}
		{@const at = documents.get(chosen.document)}
		<aside aria-label="This placement">
			<h2>{at?.title ?? chosen.document}</h2>
			<p class="soft">this placement</p>
			{#if ofChosen.length}
				<div class="grid gap-2 mt-3">
					{#each ofChosen as f (f.kind)}<Mismatch found={f} {zone} names="none" mend={(remedy, why) => mend(f, remedy, why)} />{/each}
				</div>
			{/if}
			<dl>
				<dt>Form</dt>
				<dd>
					{#each forms as form (form)}<button class="pill" class:on={chosen.form === form} aria-pressed={chosen.form === form} onclick={() => setForm(form)}
							>{formWords[form]}</button
						>{/each}
				</dd>
				{#if chosen.form !== 'frame'}
					<dt>A press</dt>
					<dd>
						{#each presses as press (press)}<button
								class="pill"
								class:on={chosen.press === press}
								aria-pressed={chosen.press === press}
								onclick={() => set({ press })}>{pressWords[press]}</button
							>{/each}
					</dd>
				{/if}
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
			</dl>
			<div class="settings">
				<SettingFields names={settingsOfForm[chosen.form]} own={chosen} usual={defaultsOf(chosen.form, defaults)} {set} />
				{#if chosen.locked}<p class="soft">
						Those whom the document turns away see a locked card. <button class="quiet" onclick={() => set({ locked: null })}>Not any more</button>
					</p>{/if}
			</div>
			{#if at}
				<p class="flex gap-2 mt-3"><DoorMark position={at.position} height={22} /> {at.sentence}</p>
				<a class="quiet" href="/desk/documents/{at.slug}#door">Set its door</a>
			{/if}
			<p><button class="btn mt-4" onclick={() => editor?.chain().focus().deleteSelection().run()}>Take out</button></p>
		</aside>
	{:else if chosenPicture}
		<aside aria-label="This picture">
			<h2>This picture</h2>
			<label class="grid gap-1 mt-3"
				>What it shows, for those who do not see it
				<input class="field" value={chosenPicture.alt ?? ''} maxlength="400" onchange={(e) => set({ alt: e.currentTarget.value.trim() || null })} /></label
			>
			<p><button class="btn mt-4" onclick={() => editor?.chain().focus().deleteSelection().run()}>Take out</button></p>
		</aside>
	{/if}
	<section class="shelf" aria-label="Shelf">
		<header>
			<strong>Shelf</strong><span class="soft">press a cover to place it at the cursor, or draw it up into the page</span>
			<input class="field ml-auto" type="search" placeholder="Find on the shelf" aria-label="Find on the shelf" bind:value={q} oninput={() => void find(q)} />
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
						<img src="/d/{at.slug}/cover/300.webp{at.cover.query}" alt="" draggable="false" />
						<span class="mark"><DoorMark position={at.position} height={18} /></span>
						<small>{at.title}</small>
					</button>
				</li>
			{/each}
			{#if !shelf.length && q}<li class="soft self-center">No document is called that.</li>{/if}
		</ul>
	</section>
</div>

<style>
	.article {
		display: grid;
		grid-template: minmax(0, 1fr) auto / minmax(0, 1fr);
		min-height: 0;
	}
	.article.chosen {
		grid-template-columns: minmax(0, 1fr) 350px;
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
		/* wider than the page: all of it in one row where there is room */
		max-width: 1010px;
		margin: 0 auto;
		padding: 8px 0;
		background: var(--ground);
	}
	.tools > button,
	.tool {
		padding: 3px 9px;
		border: 1px solid transparent;
		border-radius: var(--corner);
		cursor: pointer;
	}
	.tools > button:hover,
	.tool:hover,
	.tool:focus-within {
		border-color: var(--edge);
	}
	.tools > button.on {
		background: var(--brass-wash);
		border-color: var(--brass-bright);
		color: var(--brass);
	}
	.tools > .place {
		margin-left: auto;
		border-color: var(--edge);
	}
	.asking {
		position: absolute;
		right: 0;
		top: 100%;
		width: 330px;
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: var(--corner);
		padding: 8px;
		box-shadow: 0 6px 24px rgb(0 0 0 / 18%);
	}
	.asking .field {
		width: 100%;
	}
	.asking button {
		display: flex;
		gap: 8px;
		align-items: center;
		width: 100%;
		padding: 6px 8px;
		text-align: left;
		cursor: pointer;
	}
	.asking li[aria-selected='true'],
	.asking button:hover {
		background: var(--verdigris-wash);
	}
	article {
		max-width: 760px;
		min-height: 60%;
		margin: 0 auto;
		padding: 30px 52px 44px;
		background: var(--sheet);
		border: 1px solid var(--line);
		display: flow-root;
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
		display: flow-root;
	}
	.text :global(.placement) {
		--mark: none;
		cursor: pointer;
		border-radius: 2px;
		white-space: normal;
	}
	.text :global(.placement a) {
		cursor: pointer;
	}
	.text :global(.placement:is([data-form='card'], [data-form='frame'])) {
		display: block;
	}
	.text :global(.dead-end) {
		--mark: 2px solid var(--brick);
	}
	.text :global(.side-door) {
		--mark: 2px dashed var(--brass-bright);
	}
	.text :global(.ProseMirror-selectednode) {
		--mark: 2px solid var(--brass-bright);
	}
	/* a cover or button stands in a line: its own box is marked, so that nothing takes another size for being chosen */
	.text :global(:is(.dead-end, .side-door, .ProseMirror-selectednode):not([data-form='cover'], [data-form='button'])),
	.text :global(.placement:is([data-form='cover'], [data-form='button']) > *) {
		outline: var(--mark);
		outline-offset: 3px;
	}
	.text :global(.arriving) {
		display: inline-block;
		padding: 2px 10px;
		border: 1px dashed var(--verdigris);
		border-radius: var(--corner);
		color: var(--verdigris);
		font-size: 0.9em;
		font-variant-numeric: tabular-nums;
	}
	.text :global(.picture) {
		max-width: 100%;
		height: auto;
	}
	.text :global(.columns) {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 0 26px;
	}
	.text :global([data-column]) {
		border: 1px dashed var(--line);
		padding: 0 8px;
		min-width: 0;
	}
	.text :global(table) {
		border-collapse: collapse;
		width: 100%;
		table-layout: fixed;
	}
	.text :global(:is(td, th)) {
		border: 1px solid var(--line);
		padding: 4px 8px;
		text-align: left;
		vertical-align: top;
	}
	.text :global(th) {
		background: var(--sunk);
	}
	.text :global(.selectedCell) {
		background: var(--brass-wash);
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
	.settings {
		border-top: 1px solid var(--line);
		border-bottom: 1px solid var(--line);
		padding: 10px 0;
		display: grid;
		gap: 8px;
	}
	.shelf {
		grid-column: 1 / -1;
		background: var(--sunk);
		border-top: 1px solid var(--line);
		padding: 8px 18px 0;
		min-width: 0;
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
	.shelf li {
		flex: none;
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
		.article.chosen {
			grid-template-columns: minmax(0, 1fr);
		}
		article {
			padding: 20px;
		}
	}
</style>
