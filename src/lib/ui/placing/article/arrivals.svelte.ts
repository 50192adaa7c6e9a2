// Files dropped on the page: brought in with their progress shown in place, then placed.
import { untrack } from 'svelte';
import type { TrayEntry } from '$lib/ui/intake/entry';
import { bringIn } from '$lib/ui/intake/tray.svelte';
import { notify } from '$lib/ui/parts/notices.svelte';
import type { Article } from './article.svelte';
import { follow as followPage } from './documents';
import { arrivingKey, placeOfArriving } from './nodes';

interface Arrival {
	readonly id: number;
	readonly entry: TrayEntry;
	/** What is shown at its place in the text until it is in. */
	readonly dom: HTMLElement;
	/** Whether it follows the page once it is in. */
	readonly follow: boolean;
}

/** Where files are let go: a position of the text; with `to`, words or a picture that lead to the document. */
export interface Spot {
	readonly at: number;
	readonly to?: number;
	readonly follow?: boolean;
}

/** Files that arrive in an article: each stands in its place as a line until it is a document. */
export class Arrivals {
	#list = $state<Arrival[]>([]);
	#last = 0;

	constructor(readonly article: Article) {
		$effect(() => {
			for (const arrival of this.#list) this.#show(arrival);
		});
	}

	/** Brings files in that were let go at a spot of the text. Only what was not here before follows the page. */
	bring(files: readonly File[], { at, to, follow = false }: Spot): void {
		const { editor } = this.article;
		if (!files.length || !editor) return;
		for (const entry of bringIn(files, this.article.given.maxUpload)) {
			const id = ++this.#last;
			const dom = document.createElement('span');
			dom.className = 'arriving';
			dom.setAttribute('role', 'status');
			editor.view.dispatch(editor.state.tr.setMeta(arrivingKey, { add: { id, dom, at, to } }).setMeta('addToHistory', false));
			this.#list.push({ id, entry, dom, follow });
		}
	}

	#show({ id, entry, dom, follow }: Arrival): void {
		const { state, name, progress, trouble, document: made, known: same } = entry;
		if (made && state === 'in') untrack(() => this.#land(id, made.slug, follow));
		else if (state === 'refused') {
			untrack(() => this.#remove(id));
			notify(trouble ?? `“${name}” was refused.`, { tone: 'wrong' });
		} else if (state === 'stopped') untrack(() => this.#remove(id));
		else if (state === 'known' && same[0]) {
			const { slug, title } = same[0];
			const button = document.createElement('button');
			button.textContent = `“${title}” is here already: place it`;
			button.onclick = () => {
				entry.state = 'stopped';
				this.#land(id, slug, false);
			};
			dom.replaceChildren(button);
		} else dom.textContent = state === 'uploading' ? `${name}, ${Math.round(progress * 100)} %` : `${name}, ${state === 'checking' ? 'checking' : 'waiting'} …`;
	}

	#remove(id: number): void {
		const { editor } = this.article;
		editor?.view.dispatch(editor.state.tr.setMeta(arrivingKey, { remove: id }).setMeta('addToHistory', false));
		this.#list = this.#list.filter((a) => a.id !== id);
	}

	#land(id: number, slug: string, follow: boolean): void {
		const { article } = this;
		const { editor } = article;
		const place = editor ? placeOfArriving(editor.state, id) : null;
		this.#remove(id);
		void article.known(slug).then(async () => {
			if (place?.to === undefined) article.put(slug, place?.at);
			else {
				// words or a picture: what is chosen leads there
				const { at, to } = place;
				if (editor?.state.doc.nodeAt(at)?.type.name === 'picture') editor.commands.setNodeSelection(at);
				else editor?.commands.setTextSelection({ from: at, to });
				article.put(slug);
			}
			if (follow) await followPage(article, slug);
		});
	}
}
