// The words of the house, each in a sentence: in the handbook, and beside the thing where somebody meets it first.

export const houseWords = [
	['Door', 'who may open a document or a page: shut, keyed, ajar or open.'],
	['Keyed', 'open to the groups and people it names, and to whoever holds a key.'],
	['Ajar', 'open to whoever has the address; not listed, and search engines are told to keep out.'],
	['Announced', 'of something keyed: everyone sees its title, its description and for whom it is kept, in lists, find and where it does not open.'],
	['Key', 'an address that opens one document for whoever holds it; it can be withdrawn.'],
	['Passage', 'the way of a document in four stations: in, door, placed, read. Each arch says how far it is.'],
	['Edition', 'one file of a document; a new one keeps the address, the door and the placements.'],
	['Condition', 'what the check found: sound, worth a look, or cannot be shown.'],
	['Placement', 'a document shown somewhere: text link, button, cover, card or reading frame.'],
	['Press', 'what pressing a placement does.'],
	['Follows', 'a document whose door is the door of a page.'],
	['Dead end', 'somebody sees the page and cannot open what is placed on it.'],
	['Side door', 'somebody cannot see the page and can open the document all the same.'],
	['Knock', 'somebody turned away asks to be let in.'],
	['Roll call', 'everyone who may open a keyed document, and who did.'],
	['Receipt', 'a member’s own “I have read this”, of one edition.'],
	['Ledger', 'the record of every opening, reading, save, print, refusal and knock.'],
	['Set aside', 'taken away, and restorable for 30 days.']
] as const satisfies readonly (readonly [word: string, means: string])[];

export type HouseWord = (typeof houseWords)[number][0];

/** What a word of the house means, as a sentence. */
export function meaningOf(word: HouseWord): string {
	const [, means = ''] = houseWords.find(([known]) => known === word) ?? [];
	return `${word}: ${means}`;
}

/** The words that were met, as a cookie of the desk says: what is none of ours in it, or broken, is passed over. */
export const metFrom = (cookie: string | undefined): string[] => (cookie ?? '').split('.').filter((said) => houseWords.some(([word]) => word === said));

/** Keeps in this browser which words were met. */
export function keepMet(met: readonly string[]): void {
	document.cookie = `ianua_met=${met.map(encodeURIComponent).join('.')}; path=/desk; max-age=31536000; samesite=lax`;
}
