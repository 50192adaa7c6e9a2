// Messages for readers: complete in every language, with the plural forms that each has (Unicode CLDR, as Intl has it).
import { describe, expect, it } from 'vitest';
import { accepted, directionOf, languageFor, languages, say, type Message } from './words';
import { messages } from './messages';

const names = (message: string) => [...message.matchAll(/\{(\w+)\}/g)].map((m) => m[1]!).sort();
const forms = (message: Message) => (typeof message === 'string' ? [message] : Object.values(message));

describe.each(languages)('the messages in %s', (language) => {
	const parts = Object.entries(messages[language]);
	it('are the same ones as in English', () => {
		expect(parts.map(([part, all]) => [part, Object.keys(all).sort()])).toEqual(
			Object.entries(messages.en).map(([part, all]) => [part, Object.keys(all).sort()])
		);
	});
	it('say something, with the same values put in', () => {
		for (const [part, all] of parts)
			for (const [name, message] of Object.entries<Message>(all)) {
				const english = (messages.en as Record<string, Record<string, Message>>)[part]![name]!;
				const wanted = new Set(forms(english).flatMap(names));
				for (const text of forms(message)) {
					expect(text.trim(), `${part}.${name}`).not.toBe('');
					// a plural form such as the Arabic dual says its number in words
					if (typeof message === 'string') expect(new Set(names(text)), `${part}.${name}`).toEqual(wanted);
					else for (const value of names(text)) expect(wanted.has(value), `${part}.${name}: ${value}`).toBe(true);
				}
			}
	});
	it('have every plural form of the language', () => {
		const wanted = new Intl.PluralRules(language).resolvedOptions().pluralCategories.slice().sort();
		for (const [part, all] of parts)
			for (const [name, message] of Object.entries<Message>(all))
				if (typeof message !== 'string') expect(Object.keys(message).sort(), `${part}.${name}`).toEqual(wanted);
	});
	if (language !== 'en')
		it('are translated', () => {
			// words that are the same in two languages, and names, are few
			const same = parts.flatMap(([part, all]) =>
				Object.entries(all).filter(([name, m]) => JSON.stringify(m) === JSON.stringify((messages.en as Record<string, Record<string, Message>>)[part]![name]))
			);
			expect(same.length, same.map(([name]) => name).join(', ')).toBeLessThan(8);
		});
});

describe('saying a message', () => {
	it('puts values in, numbers as the language writes them', () => {
		expect(say('en', 'Page {page} of {count}', { page: 3, count: 3000 })).toBe('Page 3 of 3,000');
		expect(say('de', 'Seite {page} von {count}', { page: 3, count: 3000 })).toBe('Seite 3 von 3.000');
		expect(say('en', 'Back to {title}', { title: 'Locks {and} weirs' })).toBe('Back to Locks {and} weirs');
		expect(say('en', '{unknown}', {})).toBe('{unknown}');
	});
	it('chooses the plural form', () => {
		const times = { one: '{count} raz', few: '{count} razy', many: '{count} razy', other: '{count} razu' };
		expect([1, 2, 5, 22].map((count) => say('pl', times, { count }))).toEqual(['1 raz', '2 razy', '5 razy', '22 razy']);
		expect([0, 1, 2, 3, 11, 100].map((count) => say('ar', messages.ar.room.times, { count })).at(2)).toBe('مرتان');
	});
});

describe('the language to speak', () => {
	it('is the reader’s choice, else the page’s, else the browser’s, else English', () => {
		expect(languageFor('pl', 'de', 'fr')).toBe('pl');
		expect(languageFor(null, 'de-AT', 'fr')).toBe('de');
		expect(languageFor(undefined, null, 'da, fr-CA;q=0.8, en;q=0.7')).toBe('fr');
		expect(languageFor(null, 'cy', 'da, nb')).toBe('en');
		expect(languageFor('xx', undefined, undefined)).toBe('en');
	});
	it('reads Accept-Language as RFC 9110, section 12.5.4 has it', () => {
		// the section's own example (from memory): Danish preferred, British English before other English
		expect(accepted('da, en-gb;q=0.8, en;q=0.7')).toEqual(['da', 'en-gb', 'en']);
		expect(accepted('fr;q=0.2, de, es;q=0, pl;q=0.5')).toEqual(['de', 'pl', 'fr']);
		expect(accepted('')).toEqual([]);
	});
	it('says which way it is written', () => expect([directionOf('ar'), directionOf('pl')]).toEqual(['rtl', 'ltr']));
});
