import { describe, expect, it } from 'vitest';
import { bare, indexOf, listsOf, settled, type Article } from './content';
import { exchanged } from './exchange';
import { listingWords } from './listing';

const list = (attrs: object) => ({ type: 'documentList', attrs: { show: 'list', beside: false, ...attrs } });
const article = (...content: object[]) => ({ type: 'doc', content }) as unknown as Article;

describe('a document list', () => {
	it('is said in a sentence', () => {
		expect(listingWords({ show: 'list', beside: false })).toBe('of all there are; by title');
		expect(listingWords({ folders: ['Notices', 'Leaflets', 'Rotas'], topics: ['locks'], order: '-changed', show: 'covers', beside: true, most: 1 })).toBe(
			'in Notices, Leaflets or Rotas, or about locks; newest first, 1 document at most, each read beside the list'
		);
		expect(listingWords({ documents: ['map', 'rota'], order: 'given', show: 'table', beside: false })).toBe('of the 2 picked by hand; as arranged here');
	});
	it('gets an id of its own where it has none or a copy brought it along, and is sent to readers as its id alone', () => {
		let n = 0;
		const kept = settled(
			article(list({}), { type: 'blockquote', content: [list({ id: 'same-id', folders: ['Notices'] })] }, list({ id: 'same-id' })),
			() => `fresh-${++n}`
		);
		expect(listsOf(kept).map((l) => l.id)).toEqual(['fresh-1', 'same-id', 'fresh-2']);
		expect(bare(kept).content![1]).toEqual({ type: 'blockquote', content: [{ type: 'documentList', attrs: { id: 'same-id' } }] });
	});
	it('places what was picked by hand, each in its own list, and has it exchanged there', () => {
		const before = article(
			list({ id: 'first-list', documents: ['map', 'rota'] }),
			list({ id: 'second-list', documents: ['rota'] }),
			list({ id: 'third-list' })
		);
		expect(indexOf('article', before).map((p) => [p.id, p.document, p.form])).toEqual([
			['first-list-1', 'map', 'list'],
			['first-list-2', 'rota', 'list'],
			['second-list-1', 'rota', 'list']
		]);
		const there = exchanged('article', before, new Set(['rota']), 'rota-2026');
		expect(there.places).toEqual(['first-list-2', 'second-list-1']);
		expect(listsOf(there.content as Article).map((l) => l.documents)).toEqual([['map', 'rota-2026'], ['rota-2026'], undefined]);
		expect(exchanged('article', there.content, new Set(['rota-2026']), 'rota', new Set(['second-list-1'])).places).toEqual(['second-list-1']);
	});
});
