// A find as staff and readers type it: words, phrases in quotes, -word to leave out, or. PostgreSQL's websearch_to_tsquery reads it
// for what fits; here is what of it is left out, and what is marked in the text.

interface Term {
	readonly text: string;
	readonly out: boolean;
}

/** Words and phrases of a find that are looked at: what PostgreSQL is asked stays small. */
const mostTerms = 40;

/** What stands in a term without the dashes at its beginning, each of which PostgreSQL would take for one more “not”. */
const wordOf = (text: string): string => text.replace(/^-+/, '');

/** The words and phrases of a find, a phrase without its quotes; `out` where they are to be left out. `or` is a word like any other. */
export const findTerms = (q: string): Term[] => termsOf(q).map(({ text, out }) => ({ text: text.replace(/^"|"$/g, ''), out }));

const termsOf = (q: string): Term[] =>
	[...q.matchAll(/(-?)(?:"([^"]*)"?|(\S+))/g)]
		// the pattern has found the one or the other
		.map(([, not, phrase, word]) => ({ text: phrase === undefined ? wordOf(word!) : wordOf(phrase.trim()) && `"${phrase.trim()}"`, out: not === '-' }))
		.filter((term) => term.text !== '')
		.slice(0, mostTerms);

const isOr = (term: Term) => term.text.toLowerCase() === 'or';
const anyOf = (terms: readonly Term[]) =>
	terms
		.filter((t) => !isOr(t))
		.map((t) => t.text)
		.join(' or ');

/**
 * What is asked for and what is left out, each a query of its own: what fits the second is not shown, whatever of the first it has.
 * `splitQuery('"stop planks" feeder -windlass -oar')` → { wanted: '"stop planks" feeder', leftOut: 'windlass or oar' }
 */
export function splitQuery(q: string): { wanted: string; leftOut: string } {
	const terms = termsOf(q);
	return {
		wanted: terms
			.filter((t) => !t.out)
			.map((t) => t.text)
			.join(' '),
		leftOut: anyOf(terms.filter((t) => t.out))
	};
}

/**
 * The query for marking: any of the words and phrases asked for, what is left out not among them.
 * `markQuery('"stop planks" feeder -windlass')` → '"stop planks" or feeder'
 */
export const markQuery = (q: string): string => anyOf(termsOf(q).filter((t) => !t.out));

/** Small letters without accents, of the same length as the text wherever a letter has one of each. */
export const plain = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/**
 * The parts of a page that marking needs to see: to each side of the first place of each stem `reach` characters of whole words, joined by
 * " … ". Null where no stem stands there as it is; then the whole text has to be looked at.
 */
export function partsAround(body: string, stems: readonly string[], reach = 250): string | null {
	const text = body.normalize('NFC');
	const folded = plain(text);
	// letters that fold to another length are rare: their places are a little off, which the reach makes good
	const places = stems
		.map((stem) => folded.indexOf(plain(stem)))
		.filter((position) => position >= 0)
		.sort((a, b) => a - b);
	if (!places.length) return null;
	const parts: string[] = [];
	let upTo = 0;
	for (const place of places) {
		if (place + 50 < upTo || (parts.length && upTo === text.length)) continue;
		const from = Math.max(place - reach, upTo);
		upTo = Math.min(place + reach, text.length);
		const part = text.slice(from, upTo);
		// words that are cut are left away
		parts.push(part.slice(from > 0 ? part.search(/\s/) + 1 : 0, upTo < text.length && part.includes(' ') ? part.search(/\s\S*$/) : part.length));
	}
	return parts.join(' … ');
}
