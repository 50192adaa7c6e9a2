import { describe, expect, it } from 'vitest';
import { arrivalOf, onlyBy, providersTrouble, valuesOf, type Provider } from './provider';

const provider: Provider = {
	id: 'works',
	name: 'Works account',
	issuer: 'https://id.example.org',
	client: 'ianua',
	groups: { claim: 'groups', to: { wardens: 'lock-wardens', staff: 'friends', all: 'friends' }, days: 90 },
	staff: { claim: 'resource.roles', editor: ['writes'], owner: ['runs'] },
	only: ['works.example.org']
};

describe('claims', () => {
	it('are one value or several, by their name or step by step; what is no text, number or truth is none', () => {
		expect(valuesOf({ groups: 'one' }, 'groups')).toEqual(['one']);
		expect(valuesOf({ groups: ['a', 2, true, null, { x: 1 }] }, 'groups')).toEqual(['a', '2', 'true']);
		expect(valuesOf({ realm: { roles: ['r'] } }, 'realm.roles')).toEqual(['r']);
		// a name with dots of its own comes first, as in https://example.org/groups
		expect(valuesOf({ 'https://example.org/groups': ['g'] }, 'https://example.org/groups')).toEqual(['g']);
		expect(valuesOf({}, 'groups')).toEqual([]);
		expect(valuesOf({ groups: 'x' }, '__proto__.constructor')).toEqual([]);
	});
	it('come to groups that the provider decides on, and to a role among the staff', () => {
		expect(arrivalOf(provider, { groups: ['wardens', 'other'], resource: { roles: ['writes', 'runs'] } })).toEqual({
			groups: ['lock-wardens'],
			decided: ['lock-wardens', 'friends'],
			role: 'owner',
			decidesRole: true
		});
		expect(arrivalOf(provider, { groups: ['staff', 'all'] })).toMatchObject({ groups: ['friends'], role: null });
		expect(arrivalOf({}, { groups: ['wardens'] })).toEqual({ groups: [], decided: [], role: null, decidesRole: false });
	});
});

describe('providers', () => {
	it('hold a mail domain to themselves, and no domain below it', () => {
		expect(onlyBy([provider], 'Ann@Works.Example.org')?.id).toBe('works');
		expect(onlyBy([provider], 'ann@sub.works.example.org')).toBeNull();
		expect(onlyBy([provider], 'ann@notworks.example.org')).toBeNull();
		expect(onlyBy([], 'ann@works.example.org')).toBeNull();
	});
	it('have names of their own', () => {
		expect(providersTrouble([provider, { ...provider, id: 'other' }])).toBeNull();
		expect(providersTrouble([provider, provider])).toBe('two providers are called “works”');
	});
});
