// The heading above a document that stands in a line of its own: a titled section.
import type { EditorState } from '@tiptap/pm/state';
import type { Article } from './article.svelte';

/** Where the line of what is chosen begins, and the heading right above it; null where what is chosen stands among other things. */
function above({ selection, doc }: EditorState) {
	const { $from } = selection;
	if ($from.parent.type.name !== 'paragraph' || $from.parent.childCount !== 1) return null;
	const at = $from.before();
	const before = doc.resolve(at).nodeBefore;
	return { at, node: before?.type.name === 'heading' ? before : null };
}

/** The words of the heading above what is chosen, '' where there is none; null where what is chosen has no line of its own. */
export function headingAbove(state: EditorState): string | null {
	const found = above(state);
	return found && (found.node?.textContent ?? '');
}

/** Writes the heading above the chosen placement, puts one in, or takes it out where no words are given. The placement stays chosen. */
export function writeHeadingAbove(article: Article, words: string): void {
	const { chosen, editor } = article;
	const found = editor && above(editor.state);
	if (!found || !chosen) return;
	const text = words.trim();
	const from = found.at - (found.node?.nodeSize ?? 0);
	const level = (found.node?.attrs.level as number | undefined) ?? 2;
	if (text) editor.commands.insertContentAt({ from, to: found.at }, { type: 'heading', attrs: { level }, content: [{ type: 'text', text }] });
	else editor.commands.deleteRange({ from, to: found.at });
	article.choose(chosen.id);
}
