// The words of a PDF, page by page: one run of pdftotext, split at form feeds.
import { franc } from 'franc-min';
import { tagOf } from '#core/documents/language';
import { limits, run } from './run';

/** Most characters kept of a page: what PostgreSQL can index of it is 1 MB. */
const pageLength = 200_000;

export interface Words {
	/** The text of each page, in order. */
	readonly pages: readonly string[];
	/** False where reading broke off: then `pages` holds what was read before. */
	readonly whole: boolean;
}

/** Reads the text of all pages; `pages` says how many there are. */
export async function wordsOf(path: string, pages: number): Promise<Words> {
	const { code, output } = await run('pdftotext', ['-enc', 'UTF-8', '-l', String(pages), path, '-'], limits.text);
	const texts = output.split('\f');
	// each page ends with a form feed, so that what follows the last one is nothing, or a page cut off
	texts.pop();
	const plain = texts.slice(0, pages).map((t) =>
		t
			.slice(0, pageLength)
			.replace(/[\u0000-\u0008\u000b-\u001f]/g, ' ')
			.trim()
	);
	return { pages: plain, whole: code === 0 && plain.length === pages };
}

/** Whether there is a letter or a figure in it. */
export const hasWords = (text: string): boolean => /[\p{L}\p{N}]/u.test(text);

/** The language that a text's words suggest (BCP 47), null where there is too little to tell by. */
export function guessLanguage(pages: readonly string[]): string | null {
	let sample = '';
	for (const page of pages) {
		sample += ` ${page.slice(0, 3000)}`;
		if (sample.length > 12_000) break;
	}
	return sample.length < 200 ? null : tagOf(franc(sample, { minLength: 200 }));
}
