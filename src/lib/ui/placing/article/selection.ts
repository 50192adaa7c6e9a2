// What is selected or pasted in the article editor.
import { TextSelection, type EditorState } from '@tiptap/pm/state';
import type { EditorView } from '@tiptap/pm/view';
import { documentOfLink } from '#core/placing/links';
import type { Spot } from './arrivals.svelte';

/** The document at an address of this site, by its slug; null where the address is of something else. */
export const documentAt = (address: string): string | null => documentOfLink(address, location.origin)?.slug ?? null;

/** Whether a selection holds words of one line and nothing else, as another placement. */
export function onlyText(doc: EditorState['doc'], { from, to, $from, $to }: TextSelection): boolean {
	let only = $from.sameParent($to);
	doc.nodesBetween(from, to, (node) => {
		if (node.isInline && !node.isText) only = false;
	});
	return only;
}

/** Where a file that is let go at a position lands: `inside` a picture or on chosen words, these lead to it. */
export function spotAt({ state }: EditorView, position: number, inside: number): Spot {
	const picture = inside >= 0 && state.doc.nodeAt(inside);
	if (picture && picture.type.name === 'picture') return { at: inside, to: inside + picture.nodeSize };
	const { selection, doc } = state;
	const onWords = selection instanceof TextSelection && !selection.empty && selection.from <= position && position <= selection.to;
	return onWords && onlyText(doc, selection) ? { at: selection.from, to: selection.to } : { at: position };
}

/** Takes over what the browser has selected: it tells of the keys before only a moment later, and a field that opens meanwhile would lose them. */
export function takeSelection(view: EditorView): void {
	const { anchorNode, anchorOffset, focusNode, focusOffset } = getSelection() ?? {};
	if (!anchorNode || !focusNode || !view.dom.contains(anchorNode) || !view.dom.contains(focusNode)) return;
	if (!(view.state.selection instanceof TextSelection)) return;
	const [anchor, head] = [view.posAtDOM(anchorNode, anchorOffset ?? 0), view.posAtDOM(focusNode, focusOffset ?? 0)];
	view.dispatch(view.state.tr.setSelection(TextSelection.create(view.state.doc, anchor, head)));
}
