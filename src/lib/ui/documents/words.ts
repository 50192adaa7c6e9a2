// Words for what the documents room shows.

const names = new Intl.DisplayNames('en', { type: 'language' });

/** `languageWords('de')` → 'German'. */
export function languageWords(tag: string): string {
	try {
		return names.of(tag) ?? tag;
	} catch {
		return tag;
	}
}
