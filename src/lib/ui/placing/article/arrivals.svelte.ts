// Files dropped on the page: brought in with their progress shown in place, then placed.
import { untrack } from 'svelte';
import type { TrayEntry } from '$lib/ui/intake/entry';
import { bringIn } from '$lib/ui/intake/tray.svelte';
import { notify } from '$lib/ui/parts/notices.svelte';
import type { Article } from './article.svelte';
import { arrivingKey, placeOfArriving } from './nodes';

interface Arrival {
	readonly id: number;
	readonly entry: TrayEntry;
	/** What is shown at its place in the text until it is in. */
	readonly dom: HTMLElement;
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

	/** Brings files in that were let go at a position of the text. */
	bring(files: readonly File[], at: number): void {
		const { editor } = this.article;
		if (!files.length || !editor) return;
		for (const entry of bringIn(files, this.article.given.maxUpload)) {
			const id = ++this.#last;
			const dom = document.createElement('span');
			dom.className = 'arriving';
			dom.setAttribute('role', 'status');
			editor.view.dispatch(editor.state.tr.setMeta(arrivingKey, { add: { id, dom, at } }).setMeta('addToHistory', false));
			this.#list.push({ id, entry, dom });
		}
	}

	#show({ id, entry, dom }: Arrival): void {
		const { state, name, progress, trouble, document: made, known: same } = entry;
		if (made && state === 'in') untrack(() => this.#land(id, made.slug));
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
				this.#land(id, slug);
			};
			dom.replaceChildren(button);
		} else dom.textContent = state === 'uploading' ? `${name}, ${Math.round(progress * 100)} %` : `${name}, ${state === 'checking' ? 'checking' : 'waiting'} …`;
	}

	#remove(id: number): void {
		const { editor } = this.article;
		editor?.view.dispatch(editor.state.tr.setMeta(arrivingKey, { remove: id }).setMeta('addToHistory', false));
		this.#list = this.#list.filter((a) => a.id !== id);
	}

	#land(id: number, slug: string): void {
		const { article } = this;
		const place = article.editor ? placeOfArriving(article.editor.state, id) : null;
		this.#remove(id);
		void article.known(slug).then(() => article.put(slug, place ?? undefined));
	}
}
