// What is done from the editor to a document that stands in the text: its door follows the page, it is called otherwise, or lies in another folder. At once, with an undo.
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

/** Calls a document as its field says, or puts it into the folder that it names; without a title it keeps the one it has. */
export async function changeAs({ documents, given: { writer } }: Article, slug: string, what: 'title' | 'folder', field: HTMLInputElement): Promise<void> {
	const known = documents.get(slug);
	const said = field.value.trim();
	if (!known || said === known[what] || (what === 'title' && !said)) {
		field.value = known?.[what] ?? '';
		return;
	}
	await act(
		what === 'title' ? `It is called “${said}” now.` : said ? `It is in “${said}” now.` : 'It is in no folder now.',
		() => call('patch /documents/{slug}', { path: { slug }, body: { [what]: said } }),
		({ before }) => call('patch /documents/{slug}', { path: { slug }, body: before }),
		{
			show: async (_, undone) => {
				documents.set(slug, { ...known, [what]: undone ? known[what] : said });
				await writer.refresh();
			}
		}
	);
}
