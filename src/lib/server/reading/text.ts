// A document as text: for phones, large type, reading aloud and programs. The same decision as for its pages, and an opening like any part.
import { IanuaError } from '#core/errors';
import { plainText, type PageText } from '#core/reading/flow';
import { pagesAtOnce, readingText } from '../pdf/reading-text';
import { placeOf } from '../people/attempts';
import { cacheHeaders, inItsEdition, letIn, type Answer, type FileRequest, type LetIn } from './chain';
import { recordPassed } from './record';

/** The part of a document's text in which a page is, for somebody who was let in to read; entered in the ledger. */
export async function textFor({ found, asker }: Pick<LetIn, 'found' | 'asker'>, page: number, address: string): Promise<readonly PageText[]> {
	const { edition } = found;
	if (!Number.isInteger(page) || page < 1 || page > edition.pages) throw new IanuaError('not-found');
	const pages = await readingText(edition, page, placeOf(address));
	await recordPassed(found, 'opened', page > pagesAtOnce, asker);
	return pages;
}

/** `/d/<slug>/text?plain`: all of it, a form feed after each page, as `pdftotext` has it. */
export async function answerPlainText(ask: FileRequest): Promise<Answer> {
	const { found, asker } = await inItsEdition(ask, await letIn(ask, 'read'));
	const { edition } = found;
	const parts: string[] = [];
	for (let page = 1; page <= edition.pages; page += pagesAtOnce)
		for (const { blocks } of await readingText(edition, page, placeOf(ask.address))) parts.push(`${plainText(blocks)}\n\f`);
	const content = Buffer.from(parts.join(''));
	const headers = {
		...cacheHeaders(found),
		'content-type': 'text/plain; charset=utf-8',
		'x-content-type-options': 'nosniff',
		'content-length': String(content.length)
	};
	if (ask.method === 'HEAD') return { status: 200, headers };
	await recordPassed(found, 'opened', false, asker);
	return { status: 200, headers, content };
}
