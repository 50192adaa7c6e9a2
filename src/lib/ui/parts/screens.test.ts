import { describe, expect, it } from 'vitest';
import { screensFor } from './screens';

const titles = (sought: string, isOwner = true) => screensFor(sought, isOwner).map((s) => s.title);

describe('screens that are looked for', () => {
	it('are found by a part of their name, and by another word for them', () => {
		expect(titles('turned')).toEqual(['Turned away', 'Turned away']);
		expect(titles('import')).toEqual(['Members from a table']);
		expect(titles('LOGO')).toEqual(['The site']);
	});
	it('are not found by a single letter, nor by the middle of another word for them', () => {
		expect(titles('t')).toEqual([]);
		expect(titles('ogo')).toEqual([]);
	});
	it('leave out what only owners may see', () => {
		expect(titles('privacy', false)).toEqual([]);
		expect(titles('api', false)).toEqual(['Tokens']);
	});
});
