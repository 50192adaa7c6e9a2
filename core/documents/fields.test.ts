import { describe, expect, it } from 'vitest';
import { fieldsTrouble, filteringFields, filtersByField, shownFields, valueOf, valueTrouble, withFields, type Field } from './fields';

const field = (name: string, kind: Field['kind'], more: Partial<Field> = {}): Field => ({ name, words: name, kind, listed: true, filtered: false, ...more });
const department = field('department', 'choice', { words: 'Department', choices: ['Works', 'Boats'], filtered: true });
const closing = field('closing', 'date', { words: 'Closing date' });
const sold = field('sold', 'number', { listed: false });
const more = field('more', 'link');
const fields = [department, closing, sold, more, field('note', 'text')];

describe('fields of a site', () => {
	it('are told apart by name and words, and a choice has something to choose', () => {
		expect(fieldsTrouble(fields)).toBeNull();
		expect(fieldsTrouble([department, { ...closing, name: 'department' }])).toContain('two fields');
		expect(fieldsTrouble([department, { ...closing, words: ' DEPARTMENT ' }])).toContain('two fields');
		expect(fieldsTrouble([{ ...department, choices: [] }])).toContain('nothing to choose');
		expect(filteringFields([...fields, { ...closing, filtered: true }])).toEqual([department]);
	});
	it.each([
		[department, 'Works', true],
		[department, 'Trains', false],
		[closing, '2028-02-29', true],
		[closing, '2027-02-29', false],
		[closing, '31/3/2027', false],
		[sold, 12.5, true],
		[sold, '12', false],
		[sold, Number.NaN, false],
		[more, 'https://example.org/a', true],
		[more, 'javascript:alert(1)', false]
	] as const)('%j takes %j: %s', (given, value, taken) => {
		expect(valueTrouble(given, value) === null).toBe(taken);
	});
	it('a choice that is no longer offered stays where it stands', () => {
		expect(withFields([{ ...department, choices: ['Boats'] }], { department: 'Works' }, { department: 'Works' })).toEqual({ department: 'Works' });
		expect(() => withFields([{ ...department, choices: ['Boats'] }], {}, { department: 'Works' })).toThrow('one of: Boats');
	});
	it('a change names some of them; nothing takes one away; what there is no field for is refused, but may go', () => {
		expect(withFields(fields, { department: 'Works', sold: 3 }, { sold: null, closing: '2027-03-31', note: '  ' })).toEqual({
			department: 'Works',
			closing: '2027-03-31'
		});
		expect(() => withFields(fields, {}, { colour: 'red' })).toThrow('no field “colour”');
		expect(withFields(fields, { colour: 'red' }, { colour: null })).toEqual({});
	});
	it('are shown in the site’s order, as the language has days and numbers', () => {
		const values = { more: 'https://example.org/', sold: 12000.5, closing: '2027-03-31', department: 'Works', gone: 'x' };
		expect(shownFields(fields, values).map((f) => `${f.words}: ${f.value}`)).toEqual([
			'Department: Works',
			'Closing date: 31 March 2027',
			'sold: 12,000.5',
			'more: example.org'
		]);
		expect(shownFields(fields, values, 'de', true).map((f) => f.value)).toEqual(['Works', '31. März 2027', 'example.org']);
		expect(shownFields(fields, values).at(-1)!.href).toBe('https://example.org/');
	});
	it('typed, a number is one and nothing is none', () => {
		expect([valueOf(sold, ' 12 '), valueOf(sold, '12 boats'), valueOf(closing, '2027-03-31'), valueOf(closing, ' ')]).toEqual([
			12,
			'12 boats',
			'2027-03-31',
			null
		]);
	});
	it('filters name a field and a value, which may have a colon', () => {
		expect([...filtersByField(['department:Works', 'department:Boats', 'note:a:b', 'none', ':x'])]).toEqual([
			['department', ['Works', 'Boats']],
			['note', ['a:b']]
		]);
	});
});
