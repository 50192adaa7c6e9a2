// What documents say in fields, read from a table: a line a document, a column a field.
import { fieldFilter, valueOf, withFields, type Field, type FieldsChange, type FieldValues } from './fields';

/** Headings under which the document of a line is named. */
const documentHeadings = ['document', 'address', 'slug'];

export interface FieldsPlan {
	/** What changes, by the addresses of the documents as they are now. */
	readonly changes: readonly { readonly slug: string; readonly fields: FieldsChange }[];
	/** Lines that say what is there already. */
	readonly same: number;
	/** What is wrong, by the line of the table, 1 the headings. Nothing is to be done then. */
	readonly wrong: readonly { readonly line: number; readonly words: string }[];
	/** Headings that are no field's, and are left out. */
	readonly leftOut: readonly string[];
}

const plain = (text: string) => text.trim().toLowerCase();
/** 'https://library.example/d/map?x' → map; 'map' → map. */
const slugIn = (cell: string) => /(?:^|\/d\/)([a-z0-9-]+)(?:[/?#].*)?$/i.exec(cell.trim())?.[1]?.toLowerCase() ?? cell.trim();

/**
 * What a table would change: one column, called "document", "address" or "slug", has addresses of documents; the others are called as fields are.
 * An empty cell leaves what is said; "-" takes it away. `known` gives, by every address of a document, its present one and what it says now.
 */
export function planFields(
	header: readonly string[],
	rows: readonly (readonly string[])[],
	fields: readonly Field[],
	known: ReadonlyMap<string, { readonly slug: string; readonly fields: FieldValues }>
): FieldsPlan {
	const nothing = { changes: [], same: 0, leftOut: [] };
	const at = header.findIndex((heading) => documentHeadings.includes(plain(heading)));
	if (at < 0) return { ...nothing, wrong: [{ line: 1, words: 'No column is called “document”: it has the address of each line’s document.' }] };
	const columns = header.map((heading) => fields.find((field) => plain(field.words) === plain(heading) || field.name === plain(heading)));
	const leftOut = header.filter((heading, i) => i !== at && !columns[i] && heading.trim() !== '');
	if (!columns.some(Boolean)) return { ...nothing, leftOut, wrong: [{ line: 1, words: 'No column is called as a field is.' }] };
	const changes: { slug: string; fields: FieldsChange }[] = [];
	const wrong: { line: number; words: string }[] = [];
	const seen = new Map<string, number>();
	let same = 0;
	rows.forEach((row, i) => {
		const line = i + 2;
		const named = row[at]?.trim() ?? '';
		if (!named) {
			if (row.some((cell) => cell.trim())) wrong.push({ line, words: 'It names no document.' });
			return;
		}
		const document = known.get(slugIn(named));
		if (!document) return void wrong.push({ line, words: `There is no document at “${named}”.` });
		const before = seen.get(document.slug);
		if (before !== undefined) return void wrong.push({ line, words: `It is the document of line ${before} again.` });
		seen.set(document.slug, line);
		const change: FieldsChange = {};
		columns.forEach((field, column) => {
			const cell = row[column]?.trim() ?? '';
			if (field && cell) change[field.name] = cell === '-' ? null : valueOf(field, cell);
		});
		try {
			const next = withFields(fields, document.fields, change);
			const said = (values: FieldValues) =>
				Object.entries(values)
					.map(([name, value]) => fieldFilter(name, String(value)))
					.sort()
					.join('\n');
			if (said(next) === said(document.fields)) same++;
			else changes.push({ slug: document.slug, fields: change });
		} catch (error) {
			if (!(error instanceof RangeError)) throw error;
			wrong.push({ line, words: `${error.message}.` });
		}
	});
	return { changes, same, wrong, leftOut };
}
