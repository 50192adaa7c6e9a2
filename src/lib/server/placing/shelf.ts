// The documents at hand while a page is written.
import { dayWords } from '#core/access/reach';
import type { DocumentLine } from '../documents/line';
import { linesOf, listDocuments } from '../documents/list';
import { site } from '../site/site';
import type { AtHand } from './contract';

const most = 60;

function atHand(line: DocumentLine, zone: string): AtHand {
	const { slug, title, description, pages, bytes, folder, door, edition, ratio, coverAlt } = line;
	return {
		slug,
		title,
		description,
		pages,
		bytes,
		date: dayWords(Date.parse(line.editionAt), zone),
		cover: { slug, query: `?e=${line.coverMark}`, alt: coverAlt || `Cover of ${title}`, ratio },
		edition,
		folder,
		position: door.position,
		who: door.who,
		sentence: door.sentence
	};
}

/** The newest documents, or those that a find gives. */
export async function shelf(q = ''): Promise<AtHand[]> {
	const [{ items }, { zone }] = await Promise.all([listDocuments({ q, limit: most }), site()]);
	return items.map((line) => atHand(line, zone));
}

/** Named documents, wherever they stand among the others. */
export async function shelfOf(slugs: readonly string[]): Promise<AtHand[]> {
	const [lines, { zone }] = await Promise.all([linesOf(slugs), site()]);
	return lines.map((line) => atHand(line, zone));
}
