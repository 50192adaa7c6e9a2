import { describe, expect, it } from 'vitest';
import { planFolder } from './import-table';
import type { Field } from './fields';

const fields: Field[] = [
	{ name: 'department', words: 'Department', kind: 'choice', choices: ['Works', 'Office'], listed: true, filtered: true },
	{ name: 'closing', words: 'Closing date', kind: 'date', listed: true, filtered: false }
];
const given = { files: ['a.pdf', 'minutes/May 2019.pdf', 'Übersicht.pdf'], fields, groups: new Set(['wardens', 'friends']) };
const plan = (header: string[], ...rows: string[][]) => planFolder(header, rows, given);

describe('a table about a folder', () => {
	it('says of each file what its columns are called for; what it does not say is left open', () => {
		const { lines, wrong, leftOut, unnamed } = plan(
			['Path', 'Title', 'Address', 'Folder', 'Tags', 'Door', 'Groups', 'Date', 'Old address', 'Department', 'field_closing', 'Remarks'],
			['.\\minutes\\May 2019.pdf', 'May', 'https://x.example.org/d/may-19', 'Minutes', 'a; b ;a', 'Keyed', 'wardens; friends', '2019-05-14', '/old.pdf;/older.pdf', 'Works', '2019-06-01', '?'],
			['a.pdf', '', '', '', '', '', '', '', '', '', '', '']
		); // prettier-ignore
		expect(wrong).toEqual([]);
		expect(lines).toEqual([
			{
				file: 'minutes/May 2019.pdf',
				title: 'May',
				slug: 'may-19',
				folder: 'Minutes',
				day: '2019-05-14',
				topics: ['a', 'b'],
				door: 'keyed',
				groups: ['wardens', 'friends'],
				fields: { department: 'Works', closing: '2019-06-01' },
				formerAddresses: ['/old.pdf', '/older.pdf']
			},
			{ file: 'a.pdf', topics: [], door: 'shut', groups: [], fields: {}, formerAddresses: [] }
		]);
		expect([leftOut, unnamed]).toEqual([['Remarks'], ['Übersicht.pdf']]);
	});
	it('knows a file however its letters are put together (Unicode Standard Annex 15)', () => {
		expect(plan(['file'], ['Übersicht.pdf'.normalize('NFD')]).lines[0]!.file).toBe('Übersicht.pdf');
	});
	it.each([
		[['', 'x'], 'It names no file.'],
		[['b.pdf', ''], 'There is no PDF “b.pdf” in the folder.'],
		[['../a.pdf', ''], 'There is no PDF “../a.pdf” in the folder.'],
		[['a.pdf', '', 'ajarish'], '“ajarish” is no position of a door: shut, keyed, ajar, open.'],
		[['a.pdf', '', '', 'divers'], 'There is no group “divers”.'],
		[['a.pdf', '', '', '', '31/12/2026'], '“31/12/2026” is not a day: 2026-12-31 is one.'],
		[['a.pdf', '', '', '', '', 'Garden'], '“Department” is one of: Works, Office.']
	])('%j is wrong: %s', (row, words) => {
		expect(plan(['file', 'title', 'door', 'groups', 'date', 'department'], row).wrong).toEqual([{ line: 2, words }]);
	});
	it('the same file twice is wrong, lines with nothing in them are none, and without a column for files nothing is read', () => {
		expect(plan(['file'], ['a.pdf'], [''], ['./a.pdf']).wrong).toEqual([{ line: 4, words: 'It is the file of line 2 again.' }]);
		expect(plan(['title'], ['x']).wrong).toEqual([{ line: 1, words: expect.stringContaining('No column is called “file”') as unknown }]);
		// no table at all: every file by itself
		expect(plan([])).toMatchObject({ lines: [], wrong: [], unnamed: given.files });
	});
});
