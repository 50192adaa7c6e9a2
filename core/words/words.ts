// What readers are told, in their language. A message is a text with {names} in braces, or one for each plural form that the language
// has (Unicode CLDR, plural rules), chosen by {count}.
import { numberFormat, pluralRules } from '../text/formats';
import type { en } from './en';

export type Plurals = { readonly other: string } & Partial<Readonly<Record<'zero' | 'one' | 'two' | 'few' | 'many', string>>>;
export type Message = string | Plurals;

/** The same messages as English has, in another language. */
export type Messages = { readonly [Part in keyof typeof en]: { readonly [Name in keyof (typeof en)[Part]]: Message } };
export type RoomWords = Messages['room'];
export type SiteWords = Messages['site'];
export type AccountWords = Messages['account'];
export type NewsWords = Messages['news'];

export const languages = ['en', 'de', 'fr', 'es', 'pl', 'ar'] as const;
export type Language = (typeof languages)[number];
/** Each in its own words. */
export const languageNames: Record<Language, string> = { en: 'English', de: 'Deutsch', fr: 'Français', es: 'Español', pl: 'Polski', ar: 'العربية' };

/** Whether readers’ words are there in a language (BCP 47, its first part). */
export const isLanguage = (text: string | null | undefined): text is Language => languages.includes(text as Language);
/** Which way a language is written, for HTML’s `dir`. */
export const directionOf = (language: Language): 'ltr' | 'rtl' => (language === 'ar' ? 'rtl' : 'ltr');

/** Languages written from right to left (Unicode CLDR, layout; from memory), by the first part of their tags. */
const fromRight: readonly string[] = ['ar', 'arc', 'ckb', 'dv', 'fa', 'he', 'ks', 'ps', 'sd', 'syr', 'ug', 'ur', 'yi'];
/** Which way any language is written, by its tag (BCP 47): `writtenFrom('fa-IR')` → 'rtl'. */
export const writtenFrom = (tag: string): 'ltr' | 'rtl' => (fromRight.includes(tag.toLowerCase().split('-')[0]!) ? 'rtl' : 'ltr');

/** Makes a text of a message: `say('en', { one: '{count} page', other: '{count} pages' }, { count: 2 })` → '2 pages'. */
export function say(language: Language, message: Message, values: Readonly<Record<string, string | number>> = {}): string {
	const text = typeof message === 'string' ? message : (message[pluralRules(language).select(Number(values.count ?? 0))] ?? message.other);
	return text.replace(/\{(\w+)\}/g, (all, name: string) => {
		const value = values[name];
		return value === undefined ? all : typeof value === 'number' ? numberFormat(language).format(value) : value;
	});
}

/** The language to speak: what the reader chose, else what the page is written in, else the first of the browser's that we have. */
export function languageFor(chosen: string | null | undefined, page: string | null | undefined, accept: string | null | undefined): Language {
	const primary = (tag: string | null | undefined) => tag?.trim().toLowerCase().split('-')[0];
	for (const tag of [chosen, page]) {
		const language = primary(tag);
		if (isLanguage(language)) return language;
	}
	return (
		accepted(accept ?? '')
			.map(primary)
			.find(isLanguage) ?? 'en'
	);
}

/** Tags of an Accept-Language header, the most wanted first (RFC 9110, 12.5.4). `accepted('da, en-gb;q=0.8, en;q=0.7')` → ['da', 'en-gb', 'en']. */
export function accepted(header: string): string[] {
	return header
		.split(',')
		.map((part, position) => {
			const [tag, ...parameters] = part.trim().split(';');
			const q = parameters.map((p) => /^\s*q=([01](?:\.\d{0,3})?)\s*$/i.exec(p)?.[1]).find((v) => v !== undefined);
			// split gives one part at least
			return { tag: tag!.trim(), weight: q === undefined ? 1 : Number(q), at: position };
		})
		.filter(({ tag, weight }) => tag && weight > 0)
		.sort((a, b) => b.weight - a.weight || a.at - b.at)
		.map(({ tag }) => tag);
}
