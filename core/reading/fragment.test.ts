// RFC 8118, section 3: parameters of fragments that name parts of PDF documents.
import { describe, expect, it } from 'vitest';
import { fragment } from './fragment';

describe('the fragment of the reading room', () => {
	it.each([
		// the examples of RFC 8118, section 3 (from memory), as far as they name pages and words
		['#page=3', 3, []],
		['#page=4&zoom=200,250,100', 4, []],
		['#search=%22word1%20word2%22', null, ['word1', 'word2']],
		['#page=2#search=lock+gate', 2, ['lock', 'gate']],
		['#page=0', null, []],
		['#page=three', null, []],
		['#search=%E0%A4%A', null, ['E0', 'A4', 'A']],
		['', null, []]
	])('%s', (hash, page, search) => expect(fragment(hash)).toEqual({ page, search }));
	it('names a word once and keeps accents', () => expect(fragment('#search=%C3%89cluse%20%C3%89cluse').search).toEqual(['Écluse']));
});
