import { expect, it } from 'vitest';
import { defaultsOf, frameHref } from '../placing/placement';
import { roomFrame } from './room';

const asked = (query: string) => {
	const values = new Map(query.split('&').map((part) => part.split('=') as [string, string]));
	return (name: string) => values.get(name) ?? null;
};

it('a room in a frame stands as its address says, and what makes no sense is as if it were not there', () => {
	expect(roomFrame('page', asked(''))).toEqual({ kind: 'page', fit: 'page', edge: false, tools: ['save', 'fit'], theme: 'system' });
	expect(roomFrame('outside', asked('fit=width&edge=1&tools=save&theme=dark'))).toEqual({
		kind: 'outside',
		fit: 'width',
		edge: true,
		tools: ['save'],
		theme: 'dark'
	});
	expect(roomFrame('page', asked('fit=huge&edge=yes&tools=none&theme=purple'))).toEqual({ kind: 'page', fit: 'page', edge: false, tools: [], theme: 'system' });
	// over the page there is room for the fore-edge
	expect(roomFrame('over', asked('')).edge).toBe(true);
});
it('reads what a placement’s frame asks for', () => {
	for (const settings of [
		{ ...defaultsOf('frame') },
		{ ...defaultsOf('frame'), fit: 'width' as const, foreEdge: true, theme: 'light' as const },
		{ ...defaultsOf('frame'), tools: [] },
		{ ...defaultsOf('frame'), tools: ['fit' as const] }
	]) {
		const read = roomFrame('page', asked(frameHref('map', 'abcdef', settings).split('?')[1]!));
		expect([read.fit, read.edge, read.tools, read.theme]).toEqual([settings.fit, settings.foreEdge, settings.tools, settings.theme]);
	}
});
