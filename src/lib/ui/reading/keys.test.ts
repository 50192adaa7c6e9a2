// The keys of the reading room: what each does, when it does nothing, and that nothing fires while somebody types.
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ways } from '#core/reading/settings';
import { roomKeys } from './keys';
import type { Room } from './room.svelte';

let done: unknown[][];
const note =
	(name: string) =>
	(...values: unknown[]) =>
		void done.push([name, ...values]);

interface Standing {
	tools?: readonly string[];
	way?: string;
	byTurns?: boolean;
	mayPrint?: boolean;
	panel?: string | null;
}
const allTools = ['save', 'print', 'full-screen', 'fit', 'turn', 'find', 'fore-edge', 'ways', 'share', 'back'];

function roomOf({ tools = allTools, way = 'down', byTurns = false, mayPrint = true, panel = null }: Standing = {}): Room & { panel: string | null } {
	const names = ['step', 'go', 'findNext', 'zoom', 'setFit', 'nextWay', 'turn', 'goBack'];
	return {
		...Object.fromEntries(names.map((name) => [name, note(name)])),
		...{ way, byTurns, panel, given: { document: { pages: 9 }, mayPrint } },
		has: (tool: string) => tools.includes(tool)
	} as unknown as Room & { panel: string | null };
}

/** Presses a key where the focus is on something that a selector may name. */
function press(room: Room, key: string, held: Partial<KeyboardEvent> = {}, focus = 'body'): boolean {
	const event = {
		...{ key, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...held },
		target: {
			closest: (selector: string) =>
				selector
					.replace(/:not\([^)]*\)/g, '')
					.split(', ')
					.includes(focus)
					? {}
					: null
		},
		preventDefault: vi.fn()
	};
	roomKeys(room, { screen: note('screen'), close: note('close') })(event as unknown as KeyboardEvent);
	return event.preventDefault.mock.calls.length > 0;
}

beforeEach(() => {
	done = [];
	vi.stubGlobal('document', {
		fullscreenElement: null,
		querySelector: (selector: string) => ({ focus: note(`focus ${selector}`), clientHeight: 500, scrollBy: note('scroll') })
	});
});
afterEach(() => void vi.unstubAllGlobals());

describe('a key', () => {
	it.each<[string, Partial<KeyboardEvent>, unknown[]]>([
		['ArrowRight', {}, ['step', 1]],
		['ArrowLeft', {}, ['step', -1]],
		['Home', {}, ['go', 1]],
		['End', {}, ['go', 9]],
		['n', {}, ['findNext', 'next']],
		['v', {}, ['findNext', 'previous']],
		['+', {}, ['zoom', 1]],
		['=', {}, ['zoom', 1]],
		['-', {}, ['zoom', -1]],
		['0', {}, ['setFit', 'page']],
		['w', {}, ['nextWay']],
		['r', {}, ['turn', 1]],
		['R', { shiftKey: true }, ['turn', -1]],
		['s', {}, ['screen']],
		['b', {}, ['goBack']],
		['g', {}, ['focus .sill .page input']],
		['Escape', {}, ['close']],
		['ArrowDown', {}, ['scroll', { top: 60 }]],
		['ArrowUp', {}, ['scroll', { top: -60 }]],
		// down, a page of the screen is scrolled; otherwise a page of the document is turned
		['PageDown', {}, ['scroll', { top: 450 }]],
		['PageUp', {}, ['scroll', { top: -450 }]]
	])('%s %j does one thing, and the browser nothing besides', (key, held, wanted) => {
		expect(press(roomOf(), key, held)).toBe(true);
		expect(done).toEqual([wanted]);
	});
	it.each(ways.filter((way) => way !== 'down' && way !== 'tiled'))('Page Up and Page Down turn pages: %s', (way) => {
		press(roomOf({ way }), 'PageDown');
		press(roomOf({ way }), 'PageUp');
		expect(done).toEqual([
			['step', 1],
			['step', -1]
		]);
	});
	it('the space bar turns where pages are turned, and is the browser’s where they are scrolled', () => {
		expect(press(roomOf({ byTurns: true }), ' ')).toBe(true);
		expect(press(roomOf({ byTurns: true }), ' ', { shiftKey: true })).toBe(true);
		expect(press(roomOf(), ' ')).toBe(false);
		// on a button it presses the button
		expect(press(roomOf({ byTurns: true }), ' ', {}, 'button')).toBe(false);
		expect(done).toEqual([
			['step', 1],
			['step', -1]
		]);
	});
	it('opens find and print, in place of the browser’s own', () => {
		for (const [key, held, panel] of [
			['/', {}, 'find'],
			['f', { ctrlKey: true }, 'find'],
			['f', { metaKey: true }, 'find'],
			['p', { ctrlKey: true }, 'print']
		] as const) {
			const room = roomOf();
			expect(press(room, key, held)).toBe(true);
			expect(room.panel).toBe(panel);
		}
	});
	it('never prints what may not be printed: the browser’s own printing is held back too', () => {
		for (const standing of [{ mayPrint: false }, { tools: allTools.filter((t) => t !== 'print') }]) {
			const room = roomOf(standing);
			expect(press(room, 'p', { ctrlKey: true })).toBe(true);
			expect(room.panel).toBeNull();
		}
	});
	it('of a tool that is not given does nothing', () => {
		const room = roomOf({ tools: [] });
		for (const key of ['/', '+', '=', '-', '0', 'w', 'r', 'R', 's']) expect(press(room, key), key).toBe(false);
		// the browser keeps its own find where the room has none
		expect(press(room, 'f', { ctrlKey: true })).toBe(false);
		expect([done, room.panel]).toEqual([[], null]);
	});
	it('never fires while somebody types, nor with Alt, nor as another’s shortcut', () => {
		for (const key of ['ArrowRight', 'Home', 'n', 'w', '?', ' ', 's'])
			for (const focus of ['input', 'textarea', 'select', '[contenteditable]']) expect(press(roomOf(), key, {}, focus), `${key} in ${focus}`).toBe(false);
		for (const key of ['ArrowRight', 'n', 'r']) expect(press(roomOf(), key, { altKey: true }), key).toBe(false);
		for (const key of ['r', 's', 'w', 'n', 'c', 'a', '+', '=', '-', '0']) expect(press(roomOf(), key, { ctrlKey: true }), `Ctrl ${key}`).toBe(false);
		expect(done).toEqual([]);
	});
	it('scrolls nothing where a control has its own use for it', () => {
		for (const key of ['ArrowDown', 'ArrowUp', 'PageDown']) expect(press(roomOf(), key, {}, '[role=slider]'), key).toBe(false);
		expect(done).toEqual([]);
	});
	it('Escape leaves the full screen to the browser first, and closes a panel even there', () => {
		vi.stubGlobal('document', { fullscreenElement: {}, querySelector: () => null });
		expect(press(roomOf(), 'Escape')).toBe(false);
		expect(press(roomOf({ panel: 'find' }), 'Escape')).toBe(true);
		expect(done).toEqual([['close']]);
	});
	it('that nobody gave a meaning is the browser’s', () => {
		for (const key of ['q', 'F5', 'Tab', 'Shift', 'é', '5']) expect(press(roomOf(), key), key).toBe(false);
		expect(done).toEqual([]);
	});
});
