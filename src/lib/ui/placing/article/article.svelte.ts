// The article being written: its text in the editor, the documents that can stand in it, and what is chosen.
import { Editor } from '@tiptap/core';
import { TextSelection } from '@tiptap/pm/state';
import { isInTable } from '@tiptap/pm/tables';
import StarterKit from '@tiptap/starter-kit';
import { untrack } from 'svelte';
import { SvelteMap } from 'svelte/reactivity';
import { indexOf, type KeptList, type PictureAttrs } from '#core/placing/content';
import { newListing } from '#core/placing/listing';
import type { Remedy } from '#core/placing/mismatch';
import { settingsOfForm, type Form, type KeptPlacement, type PlacementDefaults } from '#core/placing/placement';
import type { AtHand } from '$lib/server/placing/contract';
import type { MismatchJson } from '$lib/server/placing/mismatches';
import { act, answerTo, soughtFor } from '$lib/ui/parts/act';
import { call } from '$lib/ui/parts/api';
import type { Writer } from '../writer.svelte';
import { Arrivals } from './arrivals.svelte';
import { listNode, type Lists } from './list';
import { Band, Column, Columns, flagsKey, freshPlacement, keptContent, marks, placementNode, plain, type PageAtHand, tables, Whole } from './nodes';
import { PictureNode, placementOf } from './picture';
import { editorProps } from './hands';
import { headingAbove } from './heading';
import { documentAt, onlyText } from './selection';

export interface ArticleGiven {
	readonly writer: Writer;
	readonly content: unknown;
	/** The newest documents. */
	readonly atHand: readonly AtHand[];
	/** Those that stand on the page. */
	readonly placed: readonly AtHand[];
	readonly defaults: PlacementDefaults;
	/** What a document list may be of. */
	readonly folders: readonly { name: string; count: number }[];
	readonly topics: readonly { name: string; count: number }[];
	/** Bytes that a file may have. */
	readonly maxUpload: number;
}

/** What a press on a tool does to the editor. */
export type Command = (state: Editor['state'], dispatch: Editor['view']['dispatch']) => boolean;

/** Made while the component that shows it is made: it watches what that is given. */
export class Article {
	editor = $state.raw<Editor>();
	/** What a word looked for has found; null where none is looked for. */
	found = $state.raw<readonly AtHand[] | null>(null);
	/** By their addresses. */
	readonly documents = new SvelteMap<string, AtHand>();
	readonly arrivals: Arrivals;
	/** Pages of the site by their paths, once they were asked for. */
	readonly pages = new SvelteMap<string, PageAtHand>();
	/** What the document lists show now. */
	readonly lists: Lists = new SvelteMap();
	/** Placements that would turn somebody away, by their ids; the editor's decorations look here. */
	readonly #flags = new Map<string, string>();
	/** Counts the editor's transactions, for what is read from its state. */
	#beat = $state(0);
	#asked = 0;

	constructor(readonly given: ArticleGiven) {
		this.arrivals = new Arrivals(this);
		$effect.pre(() => {
			for (const item of [...given.placed, ...given.atHand, ...(this.found ?? [])]) this.documents.set(item.slug, item);
		});
		$effect(() => {
			const found = given.writer.mismatches;
			untrack(() => {
				this.#flags.clear();
				for (const f of found) if (!f.intended && this.#flags.get(f.placement) !== 'dead-end') this.#flags.set(f.placement, f.kind);
				this.editor?.view.dispatch(this.editor.state.tr.setMeta(flagsKey, true).setMeta('addToHistory', false));
			});
		});
	}

	/** The editor's state as of its last transaction. */
	readonly #state = $derived(this.#beat ? this.editor?.state : undefined);
	readonly #node = $derived((this.#state?.selection as { node?: { type: { name: string }; attrs: Record<string, unknown> } } | undefined)?.node);
	readonly chosen = $derived(this.#node?.type.name === 'placement' ? (plain(this.#node.attrs) as KeptPlacement) : null);
	readonly chosenPicture = $derived(this.#node?.type.name === 'picture' ? (plain(this.#node.attrs) as PictureAttrs) : null);
	readonly chosenList = $derived(this.#node?.type.name === 'documentList' ? (plain(this.#node.attrs) as KeptList) : null);
	/** The words of the heading above the chosen placement, '' for none; null where it can have none. */
	readonly heading = $derived(this.#state && this.chosen ? headingAbove(this.#state) : null);
	readonly inTable = $derived(this.#state ? isInTable(this.#state) : false);

	/** Whether what the cursor stands in is marked so. */
	active(name: string, attrs?: Record<string, unknown>): boolean {
		return this.#state !== undefined && (this.editor?.isActive(name, attrs) ?? false);
	}

	/** Begins the editor in an element; `ask` opens the question for a document or for where a link leads. Gives what ends it. */
	begin(element: HTMLElement, ask: (what: 'place' | 'link') => void): () => void {
		const { writer, content, defaults } = this.given;
		const made = new Editor({
			element,
			injectCSS: false,
			content: content as object,
			extensions: [
				StarterKit.configure({
					document: false,
					code: false,
					codeBlock: false,
					strike: false,
					underline: false,
					heading: { levels: [2, 3] },
					link: { openOnClick: false, autolink: false, protocols: ['mailto', 'tel'] }
				}),
				placementNode(this.documents, this.pages, defaults),
				PictureNode,
				listNode(this.lists),
				Whole,
				Band,
				Columns,
				Column,
				...tables,
				marks(this.#flags)
			],
			editorProps: editorProps(this, ask),
			onUpdate: writer.touch,
			// whoever moves the focus makes one: a dialog that opens over the text must not come to depend on the count
			onTransaction: () => untrack(() => this.#beat++)
		});
		// The library puts an empty line at the end of a page with the first transaction, whatever it is. Had that been the one of the focus, the
		// press that brought the focus would have chosen nothing.
		made.view.updateState(made.state.apply(made.state.tr.setMeta('addToHistory', false)));
		this.editor = made;
		if (JSON.stringify(content).includes('"leads":')) void this.knowPages();
		writer.content = () => keptContent(made.getJSON());
		writer.describe = (picture, alt) =>
			made.commands.command(({ tr }) => {
				tr.doc.descendants((node, at) => {
					if (node.type.name === 'picture' && node.attrs.picture === picture && node.attrs.alt === null)
						tr.setNodeMarkup(at, undefined, { ...node.attrs, alt });
				});
				return true;
			});
		return () => {
			writer.stop();
			made.destroy();
		};
	}

	/** Whether there is a document at an address; it is at hand from then on. Undefined where that could not be asked, which has then been said. */
	async known(slug: string): Promise<boolean | undefined> {
		if (this.documents.has(slug)) return true;
		const items = await soughtFor(call('get /shelf', { query: { slug: [slug] } }));
		for (const item of items ?? []) this.documents.set(slug, item);
		return items && items.length > 0;
	}

	/** Has the pages of the site at hand; says where that failed. */
	async knowPages(): Promise<void> {
		if (this.pages.size) return;
		for (const page of (await soughtFor(call('get /pages'))) ?? []) if (!page.setAsideAt) this.pages.set(page.path, page);
	}

	/** Pages with a word in their titles or paths, those whose titles begin with it first; all of them for none. */
	pagesCalled(word: string): PageAtHand[] {
		const sought = word.trim().toLowerCase();
		const fitting = [...this.pages.values()].filter((p) => p.title.toLowerCase().includes(sought) || p.path.includes(sought));
		const begins = (p: PageAtHand) => Number(p.title.toLowerCase().startsWith(sought));
		return fitting.sort((a, b) => begins(b) - begins(a));
	}

	/**
	 * Puts in a teaser that leads to a page: the first document on that page as a cover, or as the words that are selected; where there is none, words
	 * that lead there. At the cursor, or with `atEnd` behind everything.
	 */
	async tease(path: string, atEnd = false): Promise<void> {
		await this.knowPages();
		const page = await answerTo(call('get /pages/{path}', { path: { path } }));
		if (!page) return;
		const [first] = indexOf(page.layout, page.content);
		if (!first || !(await this.known(first.document))) return this.lead(path, page.title);
		const form = !atEnd && this.selectedWords() ? 'text' : 'cover';
		if (atEnd) this.putAtEnd(first.document);
		else this.put(first.document, undefined, form);
		this.set({ form, leads: path, press: 'here', ...(form === 'cover' ? { page: first.page } : {}) });
	}

	/** Looks for documents by a word of their titles; nothing ends the looking. */
	async find(word: string): Promise<void> {
		const asking = ++this.#asked;
		if (!word.trim()) {
			this.found = null;
			return;
		}
		const items = await soughtFor(call('get /shelf', { query: { q: word } }));
		if (asking === this.#asked && items) this.found = items;
	}

	/**
	 * Puts a document in at a position, or at the cursor, and chooses it, so that its settings show. Words that are selected, or those of the
	 * link at the cursor, become the placement's words, as bold or italic as they were. A chosen picture becomes what is pressed.
	 */
	put(slug: string, at?: number, form: Form = 'text'): void {
		const { editor } = this;
		if (!editor) return;
		if (at === undefined && this.chosenPicture) {
			this.#leadPicture(slug, this.chosenPicture);
			return;
		}
		if (at === undefined && editor.state.selection.empty && editor.isActive('link')) editor.commands.extendMarkRange('link');
		const press = this.given.defaults[form]?.press ?? 'page';
		const attrs = { id: freshPlacement(), document: slug, form, press };
		const { selection, doc } = editor.state;
		const selected = at === undefined && selection instanceof TextSelection && onlyText(doc, selection) ? selection : null;
		const text = selected ? doc.textBetween(selected.from, selected.to) : '';
		const words = text.trim();
		const node = { type: 'placement', attrs: { ...attrs, words: words || null } };
		if (selected && words) {
			// a blank that was chosen along with a word stays where it is: it parts it from the next
			const from = selected.from + text.length - text.trimStart().length;
			const marks = (selected.$from.marksAcross(selected.$to) ?? []).filter((m) => m.type.name !== 'link');
			editor
				.chain()
				.focus()
				.insertContentAt({ from, to: from + words.length }, { ...node, marks: marks.map((m) => ({ type: m.type.name, attrs: m.attrs })) })
				.run();
		} else
			editor
				.chain()
				.focus()
				.insertContentAt(at ?? selection.to, node)
				.run();
		this.choose(attrs.id);
	}

	/** A picture that leads to a document is a placement: it is known where the document stands, and who is turned away there. */
	#leadPicture(slug: string, picture: PictureAttrs): void {
		const { editor } = this;
		if (!editor) return;
		const { from, to } = editor.state.selection;
		const attrs = placementOf(picture, slug, this.given.defaults.cover?.press ?? 'over');
		editor
			.chain()
			.focus()
			.insertContentAt({ from, to }, { type: 'paragraph', content: [{ type: 'placement', attrs }] })
			.run();
		this.choose(attrs.id);
	}

	/** Puts a document in a paragraph of its own behind everything: what was chosen elsewhere to stand on this page. */
	putAtEnd(slug: string): void {
		const { editor } = this;
		if (!editor) return;
		const { doc } = editor.state;
		// the empty line with which a page ends takes it; else a new one
		const last = doc.lastChild;
		if (last?.type.name === 'paragraph' && !last.content.size) this.put(slug, doc.content.size - 1);
		else {
			editor.commands.insertContentAt(doc.content.size, { type: 'paragraph' });
			this.put(slug, editor.state.doc.content.size - 1);
		}
	}

	/** The words that are selected; none where more than words of one line are. */
	selectedWords(): string {
		const { selection, doc } = this.editor?.state ?? {};
		return selection instanceof TextSelection && doc && onlyText(doc, selection) ? doc.textBetween(selection.from, selection.to).trim() : '';
	}

	/** The address to which the words at the cursor lead; empty where they lead nowhere. */
	linkAtCursor(): string {
		return this.chosenPicture ? (this.chosenPicture.href ?? '') : ((this.editor?.getAttributes('link').href as string | undefined) ?? '');
	}

	/**
	 * Lets the selected words, the chosen picture or the link at the cursor lead to an address; without either, `words` or the address are put in. A document's
	 * address makes a placement: then it is known where the document stands, and who is turned away there.
	 */
	async lead(href: string, words = href): Promise<void> {
		const picture = this.chosenPicture;
		if (!picture) this.editor?.chain().focus().extendMarkRange('link').run();
		const slug = documentAt(href);
		const known = slug === null ? false : await this.known(slug);
		// not asked, nothing is changed: a link to a document that is no placement would tell of no dead end
		if (known === undefined) return;
		if (slug && known) this.put(slug);
		else if (picture) this.set({ href });
		else if (this.editor?.state.selection.empty)
			this.editor
				.chain()
				.insertContent({ type: 'text', text: words, marks: [{ type: 'link', attrs: { href } }] })
				.run();
		else this.editor?.chain().setLink({ href }).run();
	}

	unlink(): void {
		if (this.chosenPicture) this.set({ href: null });
		else this.editor?.chain().focus().extendMarkRange('link').unsetLink().run();
	}

	choose(id: string): void {
		this.#chooseWhere((attrs) => attrs.id === id);
	}

	/** Chooses the last node of which that is so. */
	#chooseWhere(is: (attrs: Record<string, unknown>) => boolean): void {
		const at: number[] = [];
		this.editor?.state.doc.descendants((n, pos) => {
			if (is(n.attrs)) at.push(pos);
		});
		const last = at.at(-1);
		if (last !== undefined) this.editor?.chain().setNodeSelection(last).run();
	}

	/** Sets attributes of what is chosen: a placement, a picture or a document list. */
	set(change: Record<string, unknown>): void {
		const { editor } = this;
		if (!editor || !(this.chosen ?? this.chosenPicture ?? this.chosenList)) return;
		// setting attributes replaces the node, and with it the choice of it: choose it again
		const position = editor.state.selection.from;
		const node = editor.state.doc.nodeAt(position);
		if (!node) return;
		const attrs = { ...node.attrs, ...change };
		editor
			.chain()
			.command(({ tr }) => {
				tr.setNodeMarkup(position, undefined, attrs);
				return true;
			})
			.setNodeSelection(position)
			.run();
	}

	/** A change of the form drops settings that the other form has not, and takes its usual press. */
	setForm(form: Form): void {
		if (!this.chosen) return;
		const before = settingsOfForm[this.chosen.form];
		const dropped = Object.fromEntries(before.filter((n) => !settingsOfForm[form].includes(n)).map((n) => [n, null]));
		this.set({ form, ...dropped });
	}

	takeOut(): void {
		this.editor?.chain().focus().deleteSelection().run();
	}

	/** Puts a block in behind what is chosen, which stays. */
	putBlock(block: object, at?: number): void {
		this.editor
			?.chain()
			.focus()
			.insertContentAt(at ?? this.editor.state.selection.to, block)
			.run();
	}

	/** Puts a document list in and chooses it. */
	putList(): void {
		const id = freshPlacement();
		this.putBlock({ type: 'documentList', attrs: { id, ...newListing } });
		this.choose(id);
	}

	async putPicture(file: File, at?: number): Promise<void> {
		const form = new FormData();
		form.append('file', file);
		await act('', () => call('post /pictures', { body: form }), null, {
			show: ({ picture, width, height }) => {
				this.putBlock({ type: 'picture', attrs: { picture, width, height } }, at);
				this.#chooseWhere((attrs) => attrs.picture === picture);
			}
		});
	}

	/** Turns the chosen picture so that it stands at an angle, in degrees to the right of how it came. */
	async turnPicture(angle: number): Promise<void> {
		const { picture, upright = picture } = this.chosenPicture ?? {};
		if (!picture || !upright) return;
		await act('', () => call('post /pictures/turn', { body: { picture: upright, degrees: angle } }), null, {
			// something else may have been chosen meanwhile
			show: (turned) => this.chosenPicture?.picture === picture && this.set({ ...turned, angle: angle || null, upright: angle ? upright : null })
		});
	}

	/** Does a command of the editor's own to what the cursor stands in. */
	run(command: Command): void {
		if (!this.editor) return;
		command(this.editor.state, this.editor.view.dispatch);
		// at once: the library's own way waits for a frame, and a key pressed meanwhile would be lost
		this.editor.view.focus();
	}

	/** Remedies for what stands here: those that change the content the editor does itself, so that undo covers them. */
	mend(found: MismatchJson, remedy: Remedy, why?: string): void {
		if (remedy === 'take-out' || remedy === 'locked') {
			this.choose(found.placement);
			if (remedy === 'take-out') this.takeOut();
			else this.set({ locked: true });
		} else void this.given.writer.mend(found, remedy, why);
	}
}
