// Languages of documents: what a tag means in words, and what a guess from the words of a text comes to.

/** ISO 639-3, as language guessers give it, to the shorter tag of BCP 47 (RFC 5646, 2.2.1: the shortest code is used). From memory. */
const shorter: Readonly<Record<string, string>> = {
	arb: 'ar',
	bul: 'bg',
	ces: 'cs',
	cmn: 'zh',
	dan: 'da',
	deu: 'de',
	ell: 'el',
	eng: 'en',
	fin: 'fi',
	fra: 'fr',
	heb: 'he',
	hin: 'hi',
	hun: 'hu',
	ind: 'id',
	ita: 'it',
	jpn: 'ja',
	kor: 'ko',
	nld: 'nl',
	nob: 'no',
	pol: 'pl',
	por: 'pt',
	ron: 'ro',
	rus: 'ru',
	spa: 'es',
	srp: 'sr',
	swe: 'sv',
	tha: 'th',
	tur: 'tr',
	ukr: 'uk',
	vie: 'vi',
	zlm: 'ms'
};

/** Languages that staff may choose for a document: those whose words are stemmed, and the commonest others. */
export const languages: readonly string[] = [...new Set(Object.values(shorter))].sort();

/** The tag for an ISO 639-3 code, null where it is not one of ours. `tagOf('deu')` → 'de'. */
export const tagOf = (iso3: string): string | null => shorter[iso3] ?? null;

/** The language a document counts under, of the full tag: `mainLanguage('en-GB')` → 'en'. */
export const mainLanguage = (tag: string | null): string | null => tag?.split('-')[0]?.toLowerCase() || null;
