// Many documents for tests, made in the database from one that was brought in: as they would be, but for the time that takes.
import { sql } from '#server/db/client';
import { newId } from '#server/id';

export interface Copy {
	readonly id: string;
	readonly slug: string;
	readonly doorId: string;
}

/** Copies a document with its edition and the words on its pages, under titles of their own; `words` in place of those on page 1. */
export async function copies(original: { slug: string }, titles: readonly string[], position: string, words?: string): Promise<Copy[]> {
	const made: Copy[] = [];
	const s = sql();
	for (const [i, title] of titles.entries()) {
		const [id, doorId, edition] = [newId(), newId(), newId()];
		const slug = `${original.slug}-copy-${id.slice(-6)}-${i}`;
		await s.begin(async (tx) => {
			await tx`insert into door (id, position) values (${doorId}, ${position})`;
			await tx`insert into edition (id, document_id, number, sha256, bytes, file_name, pages, facts, condition, findings, origin, packed, pending, language, created_at)
				select ${edition}, ${id}, 1, e.sha256, e.bytes, e.file_name, e.pages, e.facts, e.condition, e.findings, e.origin, e.packed, false, e.language, now()
				from edition e join document d on d.edition_id = e.id where d.slug = ${original.slug}`;
			await tx`insert into document (id, slug, title, door_id, edition_id, created_at) values (${id}, ${slug}, ${title}, ${doorId}, ${edition}, now())`;
			await tx`insert into edition_page (edition_id, page, body)
				select ${edition}, p.page, case when p.page = 1 and ${words !== undefined} then ${words ?? ''} else p.body end
				from edition_page p join document d on d.edition_id = p.edition_id where d.slug = ${original.slug}`;
			await tx`select find_pages(${id})`;
		});
		made.push({ id, slug, doorId });
	}
	return made;
}
