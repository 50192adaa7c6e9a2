import { describe, expect, it } from 'vitest';
import type { Article, Catalogue } from './content';
import type { Pocket } from './pocket';
import { exchanged } from './exchange';

const placement = (id: string, document: string, more: object = {}) => ({ type: 'placement', attrs: { id, document, form: 'text', press: 'page', ...more } });
const article = (...inline: object[]) =>
	({ type: 'doc', content: [{ type: 'blockquote', content: [{ type: 'paragraph', content: inline }] }] }) as unknown as Article;
const addresses = new Set(['rota-2025', 'rota']);

describe('a document exchanged for another', () => {
	it('in an article: wherever it stands, by any of its addresses; form, words and ids stay', () => {
		const before = article(placement('aaaaaa', 'rota-2025', { words: 'the rota', form: 'button' }), placement('bbbbbb', 'map'), placement('cccccc', 'rota'));
		const { content, places } = exchanged('article', before, addresses, 'rota-2026');
		expect(places).toEqual(['aaaaaa', 'cccccc']);
		expect(content).toEqual(
			article(placement('aaaaaa', 'rota-2026', { words: 'the rota', form: 'button' }), placement('bbbbbb', 'map'), placement('cccccc', 'rota-2026'))
		);
	});
	it('in a list made by hand and on a pocket page', () => {
		const catalogue: Catalogue = { show: 'list', beside: false, documents: ['map', 'rota'] };
		expect(exchanged('catalogue', catalogue, addresses, 'rota-2026')).toEqual({
			content: { ...catalogue, documents: ['map', 'rota-2026'] },
			places: ['list-2']
		});
		const pocket: Pocket = {
			entries: [
				{ id: 'aaaaaa', document: 'rota' },
				{ id: 'bbbbbb', url: 'https://example.org', words: 'Tides' }
			]
		};
		expect(exchanged('pocket', pocket, addresses, 'rota-2026')).toEqual({
			content: { entries: [{ id: 'aaaaaa', document: 'rota-2026' }, pocket.entries[1]] },
			places: ['aaaaaa']
		});
	});
	it('where it stands nowhere, the content is the very same', () => {
		const content = article(placement('aaaaaa', 'map'));
		expect(exchanged('article', content, addresses, 'rota-2026').content).toBe(content);
		const all: Catalogue = { show: 'list', beside: false, folders: ['Rotas'] };
		expect(exchanged('catalogue', all, addresses, 'rota-2026').content).toBe(all);
	});
	it('is taken back at just the places where it was, also where the other one stood already', () => {
		const catalogue: Catalogue = { show: 'list', beside: false, documents: ['rota-2026', 'map', 'rota'] };
		const there = exchanged('catalogue', catalogue, addresses, 'rota-2026');
		expect(exchanged('catalogue', there.content, new Set(['rota-2026']), 'rota', new Set(there.places)).content).toEqual(catalogue);
		const written = article(placement('aaaaaa', 'rota-2026'), placement('bbbbbb', 'rota'));
		const put = exchanged('article', written, addresses, 'rota-2026');
		expect(exchanged('article', put.content, new Set(['rota-2026']), 'rota', new Set(put.places)).content).toEqual(written);
	});
});
