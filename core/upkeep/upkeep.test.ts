import { describe, expect, it } from 'vitest';
import { worstFirst, type UpkeepLine } from './upkeep';

const line = (slug: string, kind: UpkeepLine['kind'], pages = 0, at = 0): UpkeepLine => ({ kind, slug, title: slug, text: '', pages, at });

describe('the order of upkeep', () => {
	it('what readers cannot see comes first, what stands on more pages before what stands on fewer', () => {
		const lines = [
			line('a', 'set-aside'),
			line('b', 'cannot-be-shown'),
			line('c', 'cannot-be-shown', 2),
			line('d', 'source-changed', 5),
			line('e', 'source-gone')
		];
		expect(worstFirst(lines).map((l) => l.slug)).toEqual(['c', 'b', 'e', 'd', 'a']);
	});
	it('of what was set aside, the first to go stands first; equal ones go by their address', () => {
		expect(worstFirst([line('b', 'set-aside', 0, 9), line('c', 'set-aside', 0, 5), line('a', 'set-aside', 0, 9)]).map((l) => l.slug)).toEqual(['c', 'a', 'b']);
	});
});
