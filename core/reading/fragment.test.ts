// RFC 8118, section 3: parameters of fragments that name parts of PDF documents.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fragment, passageOf, soughtBy, toPage, toPassage, type Fragment } from './fragment';

const none: Fragment = { page: null, nameddest: null, zoom: null, view: null, viewrect: null, search: [], passage: null, pagemode: null };

describe('the fragment of the reading room', () => {
	it.each<[string, Partial<Fragment>]>([
		// the examples of RFC 8118, section 3 (from memory)
		['#page=3', { page: 3 }],
		['#nameddest=Chapter6', { nameddest: 'Chapter6' }],
		['#page=3&zoom=200,250,100', { page: 3, zoom: { scale: 200, left: 250, top: 100 } }],
		['#zoom=100', { zoom: { scale: 100, left: null, top: null } }],
		['#page=72&view=fitH,100', { page: 72, view: { kind: 'FitH', offset: 100 } }],
		['#page=2&view=Fit', { page: 2, view: { kind: 'Fit', offset: null } }],
		['#page=1&viewrect=50,50,200,300', { page: 1, viewrect: [50, 50, 200, 300] }],
		['#pagemode=bookmarks&page=2', { pagemode: 'bookmarks', page: 2 }],
		['#pagemode=thumbs', { pagemode: 'thumbs' }],
		['#pagemode=none', { pagemode: 'none' }],
		['#search=%22word1%20word2%22', { search: ['word1', 'word2'] }],
		// parameters stand apart by & or #
		['#page=2#search=lock+gate', { page: 2, search: ['lock', 'gate'] }],
		['#PAGE=4', { page: 4 }],
		// what makes no sense is passed over, and the rest obeyed
		['#page=0&search=a', { search: ['a'] }],
		['#page=three', {}],
		['#page=2&zoom=huge', { page: 2 }],
		['#zoom=-5', {}],
		['#zoom=50,,20', { zoom: { scale: 50, left: null, top: 20 } }],
		['#view=FitQ', {}],
		['#viewrect=1,2,3', {}],
		['#viewrect=1,2,0,4', {}],
		['#viewrect=1,2,4,0', {}],
		['#viewrect=0,0,0.5,0.5', { viewrect: [0, 0, 0.5, 0.5] }],
		['#viewrect=1,2,3,4,5', {}],
		['#zoom=0,1,2', {}],
		['#zoom=100,0,0', { zoom: { scale: 100, left: 0, top: 0 } }],
		['#zoom= 150 , 20 ,30', { zoom: { scale: 150, left: 20, top: 30 } }],
		['#view= fith ,12.5', { view: { kind: 'FitH', offset: 12.5 } }],
		['#=3', {}],
		['#page', {}],
		['#page=2=3', {}],
		['#page=1&page=4', { page: 4 }],
		['#nameddest=', {}],
		['#pagemode=fullscreen', {}],
		['#search=%E0%A4%A', { search: ['E0', 'A4', 'A'] }],
		['', {}]
	])('%s', (hash, wanted) => expect(fragment(hash)).toEqual({ ...none, ...wanted }));
	it('names a word once and keeps accents', () => expect(fragment('#search=%C3%89cluse%20%C3%89cluse').search).toEqual(['Écluse']));
	it('never throws', () => {
		fc.assert(
			fc.property(fc.string(), (text) => {
				expect(fragment(`#${text}`).search.length).toBeLessThanOrEqual(20);
			})
		);
	});
	it('reads back what leads to a page', () => {
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 9_999_999 }), fc.uniqueArray(fc.stringMatching(/^[a-zé]{1,12}$/), { maxLength: 5 }), (page, search) => {
				expect(fragment(toPage(page, search))).toEqual({ ...none, page, search });
			})
		);
	});
	it('a passage is found by its words one after the other, from its page on; a long one by its beginning', () => {
		const to = toPassage(7, passageOf('Stop planks\n are kept  in racks, “under” cover & dry'));
		expect(fragment(to)).toEqual({ ...none, page: 7, passage: 'Stop planks are kept in racks, “under” cover & dry' });
		expect(soughtBy(fragment(to))).toBe('Stop planks are kept in racks, “under” cover & dry');
		expect(soughtBy(fragment('#page=2&search=lock%20gate'))).toEqual(['lock', 'gate']);
		expect(passageOf('word '.repeat(100)).length).toBeLessThanOrEqual(160);
		// Arabic presentation forms are letters again (Unicode NFKC)
		expect(passageOf('\ufedf\ufea4')).toBe('\u0644\u062d');
	});
});
