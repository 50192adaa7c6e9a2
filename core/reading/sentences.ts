// Sentences of a text, for reading aloud: by the rules of its language (Unicode UAX 29, as the browser has them).

export interface Sentence {
	readonly text: string;
	/** Where it stands in the text, in UTF-16 units. */
	readonly from: number;
	readonly until: number;
}

/** Longest piece handed to a voice at once, in characters: longer ones are broken off by some. */
const longest = 280;

/** The sentences of a text, very long ones in pieces that end with a word. */
export function sentencesOf(text: string, language: string): Sentence[] {
	let tag = 'en';
	try {
		[tag = 'en'] = Intl.getCanonicalLocales(language);
	} catch {
		// no language that anybody knows: sentences end alike in most
	}
	return [...new Intl.Segmenter(tag, { granularity: 'sentence' }).segment(text)].flatMap(({ segment, index }) => {
		const pieces: Sentence[] = [];
		for (let from = 0; from < segment.length;) {
			const space = segment.length - from > longest ? segment.lastIndexOf(' ', from + longest) : -1;
			const until = segment.length - from <= longest ? segment.length : space > from ? space + 1 : from + longest;
			const piece = segment.slice(from, until);
			if (/[\p{L}\p{N}]/u.test(piece)) pieces.push({ text: piece.trim(), from: index + from, until: index + from + piece.trimEnd().length });
			from = until;
		}
		return pieces;
	});
}
