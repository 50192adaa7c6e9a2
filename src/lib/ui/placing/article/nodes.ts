// The article editor's own nodes: a placement (an inline atom drawn as readers will see it), bands, two columns, tables; and the
// places where files are arriving.
import { Extension, mergeAttributes, Node, type JSONContent } from '@tiptap/core';
import { Plugin, PluginKey, type EditorState } from '@tiptap/pm/state';
import { NodeRange } from '@tiptap/pm/model';
import { goToNextCell, tableEditing } from '@tiptap/pm/tables';
import { findWrapping } from '@tiptap/pm/transform';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import { mount, unmount } from 'svelte';
import { SvelteMap } from 'svelte/reactivity';
import type { Position } from '#core/access/door';
import type { bandTones } from '#core/placing/content';
import { settingsOfForm, type KeptPlacement, type PlacementDefaults } from '#core/placing/placement';
import type { AtHand } from '$lib/server/placing/contract';
import PlacementDrawn from '../PlacementDrawn.svelte';
import type { Command } from './article.svelte';

export const shelfDrag = 'application/x-ianua-document';

/** An id for a new placement. */
export const freshPlacement = () => crypto.randomUUID().replaceAll('-', '').slice(-16);

/** Every attribute that a placement may have. */
export const placementAttrs = ['id', 'document', 'form', 'press', 'words', 'locked', 'leads', ...new Set(Object.values(settingsOfForm).flat())] as const;

/** A page of the site as the editor knows it. */
export interface PageAtHand {
	readonly path: string;
	readonly title: string;
	readonly door: { readonly position: Position };
	readonly published: boolean;
}

/** Attributes of a node, kept together in one data attribute of its element: what is cut and pasted keeps them. Those without a default are null. */
export const keptTogether = (names: readonly string[], data: string, defaults: Readonly<Record<string, string>> = {}) =>
	Object.fromEntries(
		names.map((name) => [
			name,
			{
				default: defaults[name] ?? null,
				parseHTML: (el: HTMLElement) => (JSON.parse(el.dataset[data] ?? '{}') as Record<string, unknown>)[name] ?? null,
				renderHTML: () => ({})
			}
		])
	);

/** The node; `documents` and `pages` tell what stands behind an address, `defaults` what the site says of each form. */
export function placementNode(documents: SvelteMap<string, AtHand>, pages: SvelteMap<string, PageAtHand>, defaults: PlacementDefaults) {
	return Node.create({
		name: 'placement',
		group: 'inline',
		inline: true,
		atom: true,
		selectable: true,
		draggable: true,
		addAttributes: () => keptTogether(placementAttrs, 'placementAttrs', { form: 'text', press: 'page' }),
		parseHTML() {
			return [{ tag: 'span[data-placement-attrs]' }];
		},
		renderHTML({ node, HTMLAttributes }) {
			return ['span', mergeAttributes(HTMLAttributes, { 'data-placement-attrs': JSON.stringify(plain(node.attrs)) })];
		},
		addNodeView() {
			return ({ node }) => {
				const dom = document.createElement('span');
				const props = new SvelteMap<'attrs', KeptPlacement>([['attrs', plain(node.attrs) as KeptPlacement]]);
				const drawn = mount(PlacementDrawn, { target: dom, props: { props, documents, pages, defaults } });
				const show = (attrs: Record<string, unknown>) => {
					dom.className = 'placement';
					dom.dataset.placement = String(attrs.id);
					dom.dataset.form = String(attrs.form);
					props.set('attrs', plain(attrs) as KeptPlacement);
				};
				show(node.attrs);
				// a press chooses it here; it does not lead anywhere
				dom.addEventListener('click', (event) => event.preventDefault());
				return {
					dom,
					update: (next) => {
						if (next.type.name !== 'placement') return false;
						show(next.attrs);
						return true;
					},
					ignoreMutation: () => true,
					destroy: () => void unmount(drawn)
				};
			};
		}
	});
}

/** The whole: bands stand in it, and in nothing else. */
export const Whole = Node.create({ name: 'doc', topNode: true, content: '(block | band)+' });

/** Blocks on a ground of their own, from edge to edge. */
export const Band = Node.create({
	name: 'band',
	group: 'band',
	content: 'block+',
	addAttributes: () => ({ tone: { default: 'pale', parseHTML: (el: HTMLElement) => el.dataset.band ?? 'pale', renderHTML: () => ({}) } }),
	parseHTML() {
		return [{ tag: 'section[data-band]' }];
	},
	renderHTML({ node }) {
		return ['section', { 'data-band': String(node.attrs.tone), ...(node.attrs.tone === 'deep' ? { class: 'night' } : {}) }, 0];
	}
});

/** Puts the blocks at the cursor into a band, or out of the one they are in; a band of the other tone takes this one. */
export function toggleBand(tone: (typeof bandTones)[number]): Command {
	return (state, dispatch) => {
		const { $from, $to } = state.selection;
		const around = $from.depth ? $from.node(1) : null;
		if (around?.type.name === 'band') {
			const at = $from.before(1);
			const inside = new NodeRange(state.doc.resolve(at + 1), state.doc.resolve(at + around.nodeSize - 1), 1);
			dispatch(around.attrs.tone === tone ? state.tr.lift(inside, 0) : state.tr.setNodeMarkup(at, undefined, { tone }));
			return true;
		}
		const range = $from.blockRange($to, (node) => node.type === state.schema.topNodeType);
		const { band } = state.schema.nodes;
		const wrapping = range && band && findWrapping(range, band, { tone });
		if (!wrapping) return false;
		dispatch(state.tr.wrap(range, wrapping).scrollIntoView());
		return true;
	};
}

export const Columns = Node.create({
	name: 'columns',
	group: 'block',
	content: 'column column',
	isolating: true,
	parseHTML() {
		return [{ tag: 'div[data-columns]' }];
	},
	renderHTML() {
		return ['div', { 'data-columns': '', class: 'columns' }, 0];
	}
});
export const Column = Node.create({
	name: 'column',
	content: 'block+',
	isolating: true,
	parseHTML() {
		return [{ tag: 'div[data-column]' }];
	},
	renderHTML() {
		return ['div', { 'data-column': '' }, 0];
	}
});

const cell = (name: 'tableCell' | 'tableHeader', tag: 'td' | 'th') =>
	Node.create({
		name,
		content: 'block+',
		isolating: true,
		addAttributes() {
			const number = (attr: 'colspan' | 'rowspan') => ({ default: 1, parseHTML: (el: HTMLElement) => Number(el.getAttribute(attr)) || 1 });
			return { colspan: number('colspan'), rowspan: number('rowspan'), colwidth: { default: null, rendered: false } };
		},
		parseHTML() {
			return [{ tag }];
		},
		renderHTML({ HTMLAttributes }) {
			return [tag, HTMLAttributes, 0];
		}
	});
const tableRoles: Readonly<Record<string, string>> = { table: 'table', tableRow: 'row', tableCell: 'cell', tableHeader: 'header_cell' };
const Row = Node.create({
	name: 'tableRow',
	content: '(tableCell | tableHeader)*',
	parseHTML() {
		return [{ tag: 'tr' }];
	},
	renderHTML() {
		return ['tr', 0];
	}
});
const Table = Node.create({
	name: 'table',
	group: 'block',
	content: 'tableRow+',
	isolating: true,
	// asked of every node of the editor: which part of a table it is
	extendNodeSchema: ({ name }) => (tableRoles[name] ? { tableRole: tableRoles[name] } : {}),
	parseHTML() {
		return [{ tag: 'table' }];
	},
	renderHTML() {
		return ['table', ['tbody', 0]];
	},
	addKeyboardShortcuts() {
		const go = (by: 1 | -1) => () => goToNextCell(by)(this.editor.state, this.editor.view.dispatch);
		return { Tab: go(1), 'Shift-Tab': go(-1) };
	},
	addProseMirrorPlugins() {
		return [tableEditing()];
	}
});
/** ProseMirror's tables, of which @tiptap/pm brings the editing. */
export const tables = [Table, Row, cell('tableCell', 'td'), cell('tableHeader', 'th')];

/** An empty table with a row of headings. */
export const newTable = (rows: number, columns: number) => ({
	type: 'table',
	content: Array.from({ length: rows }, (_, row) => ({
		type: 'tableRow',
		content: Array.from({ length: columns }, () => ({ type: row ? 'tableCell' : 'tableHeader', content: [{ type: 'paragraph' }] }))
	}))
});

interface Arriving {
	readonly id: number;
	readonly dom: HTMLElement;
}
const arrivingKey = new PluginKey<DecorationSet>('arriving');
export const flagsKey = new PluginKey('flags');

/** Where a file that is arriving will stand now, whatever was written meanwhile; null where that place is gone. */
export function placeOfArriving(state: EditorState, id: number): { at: number; to?: number } | null {
	const found = arrivingKey.getState(state)?.find(undefined, undefined, (spec: { id?: number }) => spec.id === id) ?? [];
	const spanning = found.find(({ from, to }) => from < to);
	if (spanning) return { at: spanning.from, to: spanning.to };
	return found[0] ? { at: found[0].from } : null;
}

/** What waits for the document that it is to lead to: words, or a picture. */
function awaiting(doc: EditorState['doc'], id: number, from: number, to: number): Decoration {
	const attrs = { class: 'awaiting' };
	return doc.nodeAt(from)?.type.name === 'picture' ? Decoration.node(from, to, attrs, { id }) : Decoration.inline(from, to, attrs, { id });
}

/** Shows files on their way in at their places, and marks placements that would turn somebody away. */
export function marks(flags: ReadonlyMap<string, string>) {
	return Extension.create({
		name: 'ianuaMarks',
		addProseMirrorPlugins() {
			return [
				new Plugin<DecorationSet>({
					key: arrivingKey,
					state: {
						init: () => DecorationSet.empty,
						apply(tr, before) {
							let set = before.map(tr.mapping, tr.doc);
							const change = tr.getMeta(arrivingKey) as { add?: Arriving & { at: number; to?: number }; remove?: number } | undefined;
							if (change?.add) {
								const { id, dom, at, to } = change.add;
								set = set.add(tr.doc, [Decoration.widget(to ?? at, dom, { id, side: 1 }), ...(to === undefined ? [] : [awaiting(tr.doc, id, at, to)])]);
							}
							if (change?.remove !== undefined) set = set.remove(set.find(undefined, undefined, (spec: { id?: number }) => spec.id === change.remove));
							return set;
						}
					},
					props: { decorations: (state) => arrivingKey.getState(state) }
				}),
				new Plugin({
					key: flagsKey,
					props: {
						decorations(state) {
							const found: Decoration[] = [];
							state.doc.descendants((node, position) => {
								const flag = node.type.name === 'placement' ? flags.get(String(node.attrs.id)) : undefined;
								if (flag) found.push(Decoration.node(position, position + node.nodeSize, { class: flag }));
							});
							return DecorationSet.create(state.doc, found);
						}
					}
				})
			];
		}
	});
}
export { arrivingKey };

/** ProseMirror JSON without the attributes that say nothing, as the server keeps it. */
export function plain(value: unknown): unknown {
	if (Array.isArray(value)) return value.map(plain);
	if (value && typeof value === 'object') {
		const { type } = value as { type?: string };
		const cellType = type === 'tableCell' || type === 'tableHeader';
		return Object.fromEntries(
			Object.entries(value).flatMap(([k, v]) => {
				if (v === null) return [];
				if (!cellType || k !== 'attrs') return [[k, plain(v)]];
				const spans = Object.entries(v as object).filter(([attr, n]) => attr !== 'colwidth' && n !== 1);
				return spans.length ? [[k, Object.fromEntries(spans)]] : [];
			})
		);
	}
	return value;
}

/** What is written, as it is kept: the editor puts an empty line behind a table or a frame at the end, to write on in; it is no part of the page. */
export function keptContent(document: JSONContent): unknown {
	const content = [...(document.content ?? [])];
	const empty = (node: JSONContent | undefined) => node?.type === 'paragraph' && !node.content?.length;
	while (content.length > 1 && empty(content.at(-1))) content.pop();
	return plain({ ...document, content });
}
