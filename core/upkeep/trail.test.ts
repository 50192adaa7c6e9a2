import { describe, expect, it } from 'vitest';
import { actionWords, trailChanges } from './trail';

const names: Record<string, string> = { g1: 'Friends', g2: 'Lock wardens' };
const of = (before: unknown, after: unknown) => trailChanges({ action: 'door-set', kind: 'document', before, after }, (id) => names[id] ?? null);

describe('the audit trail in words', () => {
	it('tells what changed, from what to what, and nothing else', () => {
		expect(
			of(
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
		expect(of(null, { name: 'Ada', role: 'member', id: 'x' })).toEqual([
			{ what: 'name', from: null, to: 'Ada' },
			{ what: 'role', from: null, to: 'member' }
		]);
		expect(of({ name: 'Ada', memberships: [{ group: 'friends', from: '2026-01-01', until: null }] }, null)).toEqual([
			{ what: 'name', from: 'Ada', to: null },
			{ what: 'memberships', from: 'friends from 2026-01-01', to: null }
		]);
	});
	it('an action is a verb', () => {
		expect(actionWords('door-set')).toBe('set the door of');
		expect(actionWords('something-new')).toBe('something-new');
	});
});
