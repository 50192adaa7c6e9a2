// A find as staff and readers type it: words, phrases in quotes, -word to leave out, or. PostgreSQL's websearch_to_tsquery reads it
// for what fits; here is what of it is marked in the text.

/**
 * The query for marking: any of the words and phrases asked for, what is left out not among them.
 * `markQuery('"stop planks" feeder -windlass')` → '"stop planks" or feeder'
 */
export function markQuery(q: string): string {
	return [...q.matchAll(/(-?)(?:"([^"]*)"?|(\S+))/g)]
		.filter(([, not, phrase, word]) => !not && (phrase ?? word)!.trim() !== '' && word?.toLowerCase() !== 'or')
		.map(([, , phrase, word]) => (phrase === undefined ? word! : `"${phrase.trim()}"`))
		.join(' or ');
}
