// The editor's own node: a placement, an inline atom drawn roughly as readers will see it.
import { mergeAttributes, Node } from '@tiptap/core';
import { factsWords, type PlacedDocument } from '#core/placing/placement';

/** A document at hand, for drawing and for the shelf. */
export interface AtHand extends PlacedDocument {
	readonly edition: number;
	readonly position: 'shut' | 'keyed' | 'ajar' | 'open';
	readonly who: string;
	readonly sentence: string;
}

export const shelfDrag = 'application/x-ianua-document';

export const freshPlacement = () => crypto.randomUUID().replaceAll('-', '').slice(-16);

/** The node; `documents` tells what stands behind an address. */
export function placementNode(documents: ReadonlyMap<string, AtHand>) {
	return Node.create({
		name: 'placement',
		group: 'inline',
		inline: true,
		atom: true,
		selectable: true,
		draggable: true,
		addAttributes() {
			const kept = (name: string) => ({ default: null, parseHTML: (el: HTMLElement) => el.getAttribute(`data-${name}`), renderHTML: () => ({}) });
			return {
				id: kept('id'),
				document: kept('document'),
				form: { ...kept('form'), default: 'text' },
				press: { ...kept('press'), default: 'page' },
				words: kept('words'),
				width: { ...kept('width'), parseHTML: (el: HTMLElement) => Number(el.getAttribute('data-width')) || null }
			};
		},
		parseHTML() {
			return [{ tag: 'span[data-document]' }];
		},
		renderHTML({ node, HTMLAttributes }) {
			const data = Object.fromEntries(Object.entries(node.attrs).flatMap(([k, v]) => (v === null ? [] : [[`data-${k}`, String(v)]])));
			return ['span', mergeAttributes(HTMLAttributes, data)];
		},
		addNodeView() {
			return ({ node }) => {
				const dom = document.createElement('span');
				const show = (attrs: Record<string, unknown>) => {
					const at = documents.get(String(attrs.document));
					const words = String(attrs.words ?? '') || at?.title || String(attrs.document);
					dom.className = `placement ${String(attrs.form)}`;
					dom.dataset.placement = String(attrs.id);
					dom.replaceChildren();
					if (attrs.form === 'cover') {
						const image = document.createElement('img');
						image.src = `/d/${String(attrs.document)}/cover/300.webp`;
						image.alt = '';
						image.draggable = false;
						dom.style.width = `${Number(attrs.width) || 300}px`;
						dom.append(image);
					} else dom.style.width = '';
					const strong = document.createElement('b');
					strong.textContent = words;
					const facts = document.createElement('i');
					facts.textContent = at ? (attrs.form === 'text' ? ` (${factsWords(at)})` : factsWords(at)) : 'not here any more';
					dom.append(strong, facts);
				};
				show(node.attrs);
				return {
					dom,
					update: (next) => {
						if (next.type.name !== 'placement') return false;
						show(next.attrs);
						return true;
					}
				};
			};
		}
	});
}

/** ProseMirror JSON without the attributes that say nothing, as the server keeps it. */
export function plain(value: unknown): unknown {
	if (Array.isArray(value)) return value.map(plain);
	if (value && typeof value === 'object') return Object.fromEntries(Object.entries(value).flatMap(([k, v]) => (v === null ? [] : [[k, plain(v)]])));
	return value;
}
