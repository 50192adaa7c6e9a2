import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { actionWords, trailActions, trailChanges } from './trail';

const names: Record<string, string> = { g1: 'Friends', g2: 'Lock wardens' };
const changesOf = (before: unknown, after: unknown) => trailChanges({ action: 'door-set', kind: 'document', before, after }, (id) => names[id] ?? null);

describe('the audit trail in words', () => {
	it('tells what changed, from what to what, and nothing else', () => {
		expect(
			changesOf(
				{ position: 'keyed', groups: ['g1'], people: [], allow: { save: true, print: true }, until: null, listed: true },
				{ position: 'open', groups: ['g1', 'g2'], people: [], allow: { save: false, print: true }, until: '2027-03-31', listed: true }
			)
		).toEqual([
			{ what: 'position', from: 'keyed', to: 'open' },
			{ what: 'groups', from: 'Friends', to: 'Friends, Lock wardens' },
			{ what: 'saving', from: 'yes', to: 'no' },
			{ what: 'until', from: null, to: '2027-03-31' }
		]);
	});
	it('what was added has only a to, what was taken out only a from', () => {
		expect(changesOf(null, { name: 'Ada', role: 'member', id: 'x' })).toEqual([
			{ what: 'name', from: null, to: 'Ada' },
			{ what: 'role', from: null, to: 'member' }
		]);
		expect(changesOf({ name: 'Ada', memberships: [{ group: 'friends', from: '2026-01-01', until: null }] }, null)).toEqual([
			{ what: 'name', from: 'Ada', to: null },
			{ what: 'memberships', from: 'friends from 2026-01-01', to: null }
		]);
	});
	it('a name with several words is told in words, and things in lists as they are', () => {
		expect(
			changesOf({ allMembers: false, turnedAway: { linkTo: '/join' } }, { allMembers: true, turnedAway: { linkTo: '/help' } }).map((c) => [c.from, c.to])
		).toEqual([
			['no', 'yes'],
			['/join', '/help']
		]);
		expect(changesOf({ someNewThing: 1 }, { someNewThing: 2 })).toEqual([{ what: 'some new thing', from: '1', to: '2' }]);
		expect(changesOf({ list: [] }, { list: [{ a: 1 }, { group: 'g', until: '2026-12-31' }] })).toEqual([
			{ what: 'list', from: null, to: '{"a":1}, g until 2026-12-31' }
		]);
		expect([changesOf('text', ['list']), changesOf(undefined, null), changesOf(1, 2)]).toEqual([[], [], []]);
	});
	it('an address and a checksum are called so, and of a checksum the beginning stands', () => {
		const [a, b] = ['ab'.repeat(32), 'cd'.repeat(32)];
		expect(changesOf({ slug: 'map', sha256: a }, { slug: 'maps', sha256: b })).toEqual([
			{ what: 'address', from: 'map', to: 'maps' },
			{ what: 'checksum', from: 'abababababab…', to: 'cdcdcdcdcdcd…' }
		]);
	});
	it('an entry that tells only what is new says nothing of what was', () => {
		expect(changesOf({ name: 'Ada', role: 'member' }, { role: 'owner' })).toEqual([{ what: 'role', from: 'member', to: 'owner' }]);
		expect(changesOf({ name: 'Ada', role: 'member' }, {})).toEqual([]);
	});
	it('an action is a verb', () => {
		expect(actionWords('door-set')).toBe('set the door of');
		expect(actionWords('something-new')).toBe('something-new');
	});
	it('a line is told for every plain thing that differs, and for no other', () => {
		const value = fc.oneof(
			fc.constantFrom(null, '', true, false, 'open', 'g1', 'g2'),
			fc.integer({ min: 0, max: 3 }),
			fc.array(fc.constantFrom('g1', 'x'), { maxLength: 2 })
		);
		const thing = fc.record({ title: value, folder: value, language: value, all: fc.record({ one: value, two: value }) });
		/** Nothing, an empty text and an empty list read alike, as do a thing and a list of it alone. */
		const words = (v: unknown): string => {
			if (Array.isArray(v)) return v.map(words).join(', ');
			if (typeof v === 'boolean') return v ? 'yes' : 'no';
			const text = v === null ? '' : typeof v === 'number' ? String(v) : (v as string);
			return names[text] ?? text;
		};
		fc.assert(
			fc.property(thing, thing, (before, after) => {
				const pairs = [
					['title', before.title, after.title],
					['folder', before.folder, after.folder],
					['language', before.language, after.language],
					['all one', before.all.one, after.all.one],
					['all two', before.all.two, after.all.two]
				] as const;
				const told = changesOf(before, after);
				expect(told.map((c) => c.what)).toEqual(pairs.filter(([, a, b]) => words(a) !== words(b)).map(([what]) => what));
				// there and back tells the same the other way round
				expect(changesOf(after, before).map(({ what, from, to }) => ({ what, from: to, to: from }))).toEqual(told);
				expect(changesOf(before, before)).toEqual([]);
			})
		);
	});
	it('ids of the rows themselves are never told', () =>
		expect(
			changesOf({ id: 'a', key: 'b', knock: 'c', editionId: 'd', documentId: 'e' }, { id: 'f', key: 'g', knock: 'h', editionId: 'i', documentId: 'j' })
		).toEqual([]));
	it('every action that is written has a verb of its own', () => {
		expect(new Set(trailActions.map(actionWords)).size).toBeGreaterThan(trailActions.length - 3);
		for (const action of trailActions) expect(actionWords(action).length, action).toBeGreaterThan(2);
	});
});
