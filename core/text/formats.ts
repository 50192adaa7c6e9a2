// Formats of the language's own (ECMA-402), each made once: making one takes a hundred times as long as using it.

function madeOnce<Options extends object, Format>(make: (language: string, options: Options) => Format) {
	const made = new Map<string, Format>();
	return (language: string, options: Options): Format => {
		const key = language + JSON.stringify(options);
		let format = made.get(key);
		if (!format) made.set(key, (format = make(language, options)));
		return format;
	};
}

/** English as it is written here. */
const spokenAs = (language: string): string => (language === 'en' ? 'en-GB' : language);

/** How days and times are written in a language (BCP 47). Throws RangeError for a time zone that there is not. */
export const dateFormat = madeOnce<Intl.DateTimeFormatOptions, Intl.DateTimeFormat>(
	(language, options) => new Intl.DateTimeFormat(spokenAs(language), options)
);

const numbers = madeOnce<object, Intl.NumberFormat>((language) => new Intl.NumberFormat(spokenAs(language)));
/** How numbers are written in a language. */
export const numberFormat = (language: string): Intl.NumberFormat => numbers(language, {});

const plurals = madeOnce<object, Intl.PluralRules>((language) => new Intl.PluralRules(language));
/** Which form of a noun goes with a number (Unicode CLDR, plural rules). */
export const pluralRules = (language: string): Intl.PluralRules => plurals(language, {});
