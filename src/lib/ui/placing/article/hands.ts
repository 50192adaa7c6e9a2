// What a hand does in the article editor: writes, presses keys, pastes and drops.
import { NodeSelection, TextSelection } from '@tiptap/pm/state';
import type { EditorProps } from '@tiptap/pm/view';
import type { Article } from './article.svelte';
import { shelfDrag } from './nodes';
import { placeLinks } from './pasted-links';
import { pictureType } from './picture';
import { documentAt, spotAt, takeSelection } from './selection';

/** `ask` opens the question for a document or for where a link leads. */
export const editorProps = (article: Article, ask: (what: 'place' | 'link') => void): EditorProps => ({
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
			article.editor?.chain().setTextSelection(selection.to).splitBlock().run();
			return true;
		}
		// a command at the cursor: Alt and p
		if (event.altKey && !event.ctrlKey && !event.metaKey && event.code === 'KeyP') {
			takeSelection(view);
			ask('place');
			return true;
		}
		if ((event.ctrlKey || event.metaKey) && !event.altKey && event.code === 'KeyK') {
			takeSelection(view);
			ask('link');
			return true;
		}
		return false;
	},
	handlePaste: (_view, event) => {
		const pictures = [...(event.clipboardData?.files ?? [])].filter((file) => pictureType.test(file.type));
		if (pictures.length) {
			for (const file of pictures) void article.putPicture(file);
			return true;
		}
		const text = event.clipboardData?.getData('text/plain') ?? '';
		const slug = documentAt(text);
		if (!slug) {
			// once the text has it
			setTimeout(() => void placeLinks(article));
			return false;
		}
		void article.known(slug).then((is) => {
			if (is) article.put(slug);
			else article.editor?.chain().focus().insertContent(text).run();
		});
		return true;
	},
	handleDrop: (view, event) => {
		const under = view.posAtCoords({ left: event.clientX, top: event.clientY });
		const position = under?.pos ?? view.state.selection.to;
		const inside = under?.inside ?? -1;
		const slug = event.dataTransfer?.getData(shelfDrag);
		if (slug) {
			// on a picture, it becomes what the picture leads to
			if (inside >= 0 && view.state.doc.nodeAt(inside)?.type.name === 'picture') {
				article.editor?.commands.setNodeSelection(inside);
				article.put(slug);
			} else article.put(slug, position);
			return true;
		}
		const files = [...(event.dataTransfer?.files ?? [])];
		if (!files.length) {
			setTimeout(() => void placeLinks(article));
			return false;
		}
		const pictures = files.filter((f) => pictureType.test(f.type));
		for (const file of pictures) void article.putPicture(file, position);
		article.arrivals.bring(
			files.filter((f) => !pictures.includes(f)),
			spotAt(view, position, inside)
		);
		return true;
	}
});
