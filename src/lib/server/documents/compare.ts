// Two editions of a document side by side: pages, size, and the words of each page.
import { comparePages, type Comparison } from '#core/documents/compare';
import { IanuaError } from '#core/errors';
import { sql } from '../db/client';
import { documentJson, documentView } from './view';

export interface ComparedEditions extends Comparison {
	readonly before: ReturnType<typeof documentJson>['editions'][number];
	readonly after: ReturnType<typeof documentJson>['editions'][number];
}

/** Compares two editions by their numbers. Throws `edition-unknown`. */
export async function compareEditions(slug: string, before: number, after: number): Promise<ComparedEditions> {
	const view = await documentView(slug);
	if (!view) throw new IanuaError('not-found');
	const { editions } = documentJson(view);
	const byNumber = (number: number) => {
		const edition = editions.find((e) => e.number === number);
		if (!edition) throw new IanuaError('edition-unknown', { number: String(number) });
		return edition;
	};
	const [from, to] = [byNumber(before), byNumber(after)];
	const [was, is] = await Promise.all([textOf(view.id, before, from.pages), textOf(view.id, after, to.pages)]);
	return { before: from, after: to, ...comparePages(was, is) };
}

/** The text of each page of an edition; pages without words are empty. */
async function textOf(documentId: string, number: number, pages: number): Promise<string[]> {
	const rows = await sql()<{ page: number; body: string }[]>`
		select p.page, p.body from edition_page p join edition e on e.id = p.edition_id where e.document_id = ${documentId} and e.number = ${number}`;
	const texts = new Array<string>(pages).fill('');
	for (const { page, body } of rows) if (page <= pages) texts[page - 1] = body;
	return texts;
}
