// What is done from the editor to a document that stands in the text: its door follows the page, or it is called otherwise. At once, with an undo.
import { act } from '$lib/ui/parts/act';
import { call } from '$lib/ui/parts/api';
import type { Article } from './article.svelte';

/** Lets a document follow the page: who may open the page may open it, from when the page is out. */
export async function follow({ documents, given: { writer } }: Article, slug: string): Promise<void> {
	if (!(await writer.save())) return;
	const door = { follows: writer.path };
	await act(
		`“${documents.get(slug)?.title ?? slug}” follows the page.`,
		() => call('patch /documents/{slug}', { path: { slug }, body: { door } }),
		({ before }) => call('patch /documents/{slug}', { path: { slug }, body: before }),
		{ show: () => writer.refresh() }
	);
}

/** Puts a shut document in at the cursor and lets it follow the page. */
export function putFollowing(article: Article, slug: string): void {
	article.put(slug);
	void follow(article, slug);
}

/** Calls a document as its field says; without words it stays as it is. */
export async function rename({ documents, given: { writer } }: Article, slug: string, field: HTMLInputElement): Promise<void> {
	const known = documents.get(slug);
	const title = field.value.trim();
	if (!known || !title || title === known.title) {
		field.value = known?.title ?? '';
		return;
	}
	await act(
		`It is called “${title}” now.`,
		() => call('patch /documents/{slug}', { path: { slug }, body: { title } }),
		({ before }) => call('patch /documents/{slug}', { path: { slug }, body: before }),
		{
			show: async (_, undone) => {
				documents.set(slug, { ...known, title: undone ? known.title : title });
				await writer.refresh();
			}
		}
	);
}
