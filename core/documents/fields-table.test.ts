import { describe, expect, it } from 'vitest';
import type { Field, FieldValues } from './fields';
import { planFields } from './fields-table';

const fields: Field[] = [
	{ name: 'department', words: 'Department', kind: 'choice', choices: ['Works', 'Boats'], listed: true, filtered: true },
	{ name: 'sold', words: 'Copies sold', kind: 'number', listed: true, filtered: false }
];
const map: { slug: string; fields: FieldValues } = { slug: 'map', fields: { department: 'Works' } };
const known = new Map<string, typeof map>([
	['map', map],
	['old-map', map],
	['guide', { slug: 'guide', fields: {} }]
]);
const plan = (header: string[], ...rows: string[][]) => planFields(header, rows, fields, known);

describe('a table of fields', () => {
	it('names documents by address, present or former, and fields by their words or names', () => {
		expect(
			plan(['Copies sold', 'Address', 'department', 'Colour'], ['12', 'https://library.example/d/old-map?from=x', '', 'red'], ['', 'guide', 'Boats', ''])
		).toEqual({
			changes: [
				{ slug: 'map', fields: { sold: 12 } },
				{ slug: 'guide', fields: { department: 'Boats' } }
			],
			same: 0,
			wrong: [],
			leftOut: ['Colour']
		});
	});
	it('leaves what an empty cell says nothing of, takes away with a dash, and counts what is there already', () => {
		expect(plan(['document', 'Department'], ['map', '-'], ['guide', ''], ['', ''])).toEqual({
			changes: [{ slug: 'map', fields: { department: null } }],
			same: 1,
			wrong: [],
			leftOut: []
		});
		expect(plan(['document', 'Department'], ['map', 'Works']).same).toBe(1);
	});
	it('says of each line what is wrong with it', () => {
		const { wrong } = plan(
			['slug', 'Department', 'Copies sold'],
			['nowhere', 'Works', ''],
			['map', 'Trains', ''],
			['guide', '', 'many'],
			['', 'Works', ''],
			['old-map', 'Boats', '']
		);
		expect(wrong.map(({ line, words }) => `${line}: ${words}`)).toEqual([
			'2: There is no document at “nowhere”.',
			'3: “Department” is one of: Works, Boats.',
			'4: “Copies sold” is a number.',
			'5: It names no document.',
			'6: It is the document of line 3 again.'
		]);
		expect(plan(['title', 'Department'], ['map', 'Works']).wrong[0]!.words).toContain('No column is called “document”');
		expect(plan(['document', 'Colour'], ['map', 'red']).wrong[0]!.words).toContain('No column is called as a field');
	});
});
