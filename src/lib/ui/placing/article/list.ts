// Document lists in the article editor: the node, drawn as the editor's own reader would see it.
import { Node } from '@tiptap/core';
import { mount, unmount } from 'svelte';
import { SvelteMap } from 'svelte/reactivity';
import type { KeptList } from '#core/placing/content';
import type { ListAttrs } from '#core/placing/listing';
import type { Answer } from '$lib/ui/parts/api';
import ListDrawn from '../ListDrawn.svelte';
import { keptTogether, plain } from './nodes';

/** What a list would show now, by its id. */
export type Lists = SvelteMap<string, Answer<'post /listing'>>;

/** What the editor keeps of a list; null where nothing is said. */
const listAttrs = [
	'id',
	'folders',
	'topics',
	'fields',
	'documents',
	'show',
	'order',
	'beside',
	'filters',
	'most'
] as const satisfies readonly (keyof ListAttrs)[];

/** The node; what each list shows is put into `lists`, for its settings too. */
export const listNode = (lists: Lists) =>
	Node.create({
		name: 'documentList',
		group: 'block',
		atom: true,
		draggable: true,
		addAttributes: () => keptTogether(listAttrs, 'documentList'),
		parseHTML() {
			return [{ tag: 'div[data-document-list]' }];
		},
		renderHTML({ node }) {
			return ['div', { 'data-document-list': JSON.stringify(plain(node.attrs)) }];
		},
		addNodeView() {
			return ({ node }) => {
				const dom = document.createElement('div');
				dom.className = 'document-list';
				const props = new SvelteMap<'attrs', KeptList>([['attrs', plain(node.attrs) as KeptList]]);
				const drawn = mount(ListDrawn, { target: dom, props: { props, lists } });
				return {
					dom,
					update: (next) => {
						if (next.type.name !== 'documentList') return false;
						props.set('attrs', plain(next.attrs) as KeptList);
						return true;
					},
					ignoreMutation: () => true,
					destroy: () => void unmount(drawn)
				};
			};
		}
	});
