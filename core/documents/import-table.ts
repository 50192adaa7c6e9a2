// A folder of PDFs from elsewhere, with a table about them: a line a file, a column for each thing that is said of it.
import { isDay } from '../access/hours';
import { positions, type Position } from '../access/door';
import { valueOf, withFields, type Field, type FieldValues } from './fields';

/** What a line says of its file; what it does not say is made from the file. */
export interface FolderLine {
	/** The path within the folder, as it lies there. */
	readonly file: string;
	readonly title?: string;
	readonly description?: string;
	/** The slug that it is to have. */
	readonly slug?: string;
	readonly folder?: string;
	readonly topics: readonly string[];
	readonly language?: string;
	/** The day on which it came out. */
	readonly day?: string;
	readonly door: Position;
	/** Slugs of the groups that a keyed one admits. */
	readonly groups: readonly string[];
	readonly fields: FieldValues;
	/** Where it lay on the old website. */
	readonly formerAddresses: readonly string[];
}

export interface FolderPlan {
	readonly lines: readonly FolderLine[];
	/** What is wrong, by the line of the table, 1 the headings. Nothing is to be done then. */
	readonly wrong: readonly { readonly line: number; readonly words: string }[];
	/** Headings that mean nothing here. */
	readonly leftOut: readonly string[];
	/** Files of the folder that no line names; they come in by themselves. */
	readonly unnamed: readonly string[];
}

const headings = {
	file: ['file', 'path', 'filename', 'file name'],
	title: ['title', 'name'],
	description: ['description', 'summary'],
	slug: ['address', 'slug', 'document'],
	folder: ['folder'],
	topics: ['topics', 'topic', 'tags'],
	language: ['language'],
	day: ['date', 'day', 'brought in', 'brought_in', 'published'],
	door: ['door'],
	groups: ['groups', 'group'],
	former: ['former addresses', 'former_addresses', 'former address', 'old address', 'old addresses', 'url']
} as const;
type Heading = keyof typeof headings;

const plain = (text: string) => text.trim().toLowerCase();
/** 'minutes; 2026 ;' → ['minutes', '2026']: parted by semicolons, or lines within the cell. */
const several = (cell: string) => [...new Set(cell.split(/[;\n]/).map((part) => part.trim()))].filter(Boolean);
/** As paths are written: with slashes, without a step that goes nowhere. */
const asPath = (text: string) =>
	text
		.trim()
		.replaceAll('\\', '/')
		.replace(/^(?:\.?\/)+/, '');

/**
 * Reads a table about the files of a folder. A column called as a field of the site fills it. A file that no line names comes in with what is made from
 * it; a line whose file is not there is wrong, and so is what cannot be understood.
 */
export function planFolder(
	header: readonly string[],
	rows: readonly (readonly string[])[],
	{ files, fields, groups }: { readonly files: readonly string[]; readonly fields: readonly Field[]; readonly groups: ReadonlySet<string> }
): FolderPlan {
	const column = (name: Heading) => header.findIndex((heading) => (headings[name] as readonly string[]).includes(plain(heading)));
	const at = Object.fromEntries((Object.keys(headings) as Heading[]).map((name) => [name, column(name)])) as Record<Heading, number>;
	if (header.length && at.file < 0)
		return {
			lines: [],
			wrong: [{ line: 1, words: 'No column is called “file”: it has the path of each line’s PDF within the folder.' }],
			leftOut: [],
			unnamed: []
		};
	const fieldAt = header.map((heading) =>
		fields.find((field) => plain(field.words) === plain(heading) || plain(heading) === field.name || plain(heading) === `field_${field.name}`)
	);
	const leftOut = header.filter((heading, i) => heading.trim() !== '' && !fieldAt[i] && !Object.values(at).includes(i));
	const there = new Map(files.map((file) => [file.normalize('NFC'), file]));
	const named = new Map<string, number>();
	const wrong: { line: number; words: string }[] = [];
	const read = (row: readonly string[], line: number): FolderLine | null => {
		const cell = (name: Heading) => (at[name] < 0 ? '' : (row[at[name]] ?? '').trim());
		if (row.every((c) => c.trim() === '')) return null;
		/** Nothing comes of the line. */
		const say = (words: string): null => {
			wrong.push({ line, words });
			return null;
		};
		const file = there.get(asPath(cell('file')).normalize('NFC'));
		if (!cell('file')) return say('It names no file.');
		if (file === undefined) return say(`There is no PDF “${cell('file')}” in the folder.`);
		if (named.has(file)) return say(`It is the file of line ${named.get(file)} again.`);
		named.set(file, line);
		const door = plain(cell('door')) || 'shut';
		if (!(positions as readonly string[]).includes(door)) return say(`“${cell('door')}” is no position of a door: ${positions.join(', ')}.`);
		const admitted = several(cell('groups'));
		const unknown = admitted.find((slug) => !groups.has(slug));
		if (unknown !== undefined) return say(`There is no group “${unknown}”.`);
		const day = cell('day').slice(0, 10);
		if (day && !isDay(day)) return say(`“${cell('day')}” is not a day: 2026-12-31 is one.`);
		let said: FieldValues;
		try {
			said = withFields(fields, {}, Object.fromEntries(fieldAt.flatMap((field, n) => (field ? [[field.name, valueOf(field, row[n] ?? '')]] : []))));
		} catch (error) {
			if (!(error instanceof RangeError)) throw error;
			return say(`${error.message}.`);
		}
		const words = {
			title: cell('title'),
			description: cell('description'),
			slug: cell('slug').replace(/^.*\/d\//, ''),
			folder: cell('folder'),
			language: cell('language'),
			day
		};
		return {
			file,
			...Object.fromEntries(Object.entries(words).filter(([, value]) => value)),
			topics: several(cell('topics')),
			door: door as Position,
			groups: admitted,
			fields: said,
			formerAddresses: several(cell('former'))
		};
	};
	const lines = rows.map((row, i) => read(row, i + 2)).filter((line) => line !== null);
	return { lines, wrong, leftOut, unnamed: files.filter((file) => !named.has(file)) };
}
