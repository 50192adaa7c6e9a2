// What a document's cover shows.

/** A page of the edition in force; a picture of one's own, kept in the store under its checksum; an icon found by a word, kept as a picture. */
export type Cover =
	| { readonly kind: 'page'; readonly page: number }
	| { readonly kind: 'picture'; readonly sha256: string }
	| { readonly kind: 'icon'; readonly name: string; readonly sha256: string };

/** A short mark of what a cover shows, for made files and for addresses that change with it: `page-1`, `picture-9f86d081`. */
export function coverMark(cover: Cover | null): string {
	if (cover === null) return 'page-1';
	return cover.kind === 'page' ? `page-${cover.page}` : `picture-${cover.sha256.slice(0, 8)}`;
}
