// Loaded before a program's own code (node --import) while rows are watched: notes, for each statement, which columns its rows had and of
// which kinds their values were, and writes that down. rows.ts beside it compares that with the types in the sources.
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import postgres from 'postgres';

const folder = process.env.WATCH_ROWS;
/** Statement → column → kinds of values seen. */
const seen = new Map();
/** Something was seen that is not written down yet. */
let news = false;

function kindOf(value) {
	if (value === null) return 'null';
	if (typeof value !== 'object') return typeof value;
	if (value instanceof Date) return 'Date';
	if (value instanceof Uint8Array) return 'Uint8Array';
	return Array.isArray(value) ? 'array' : 'object';
}

function note(result) {
	const text = result?.statement?.string;
	if (!text || !result.columns?.length) return;
	if (!seen.has(text)) news = true;
	const columns = seen.get(text) ?? Object.fromEntries(result.columns.map(({ name }) => [name, []]));
	seen.set(text, columns);
	// rows that are read as lists are those of Drizzle's own selects: it knows their types from the schema
	if (Array.isArray(result[0])) return;
	for (const row of result)
		for (const name of Object.keys(row)) {
			const kind = kindOf(row[name]);
			if (columns[name]?.includes(kind)) continue;
			(columns[name] ??= []).push(kind);
			news = true;
		}
}

function write() {
	if (!news) return;
	news = false;
	mkdirSync(folder, { recursive: true });
	writeFileSync(join(folder, `${process.pid}.json`), JSON.stringify(Object.fromEntries(seen)));
}

if (folder) {
	// no connection is made by this: a query is sent when somebody waits for it
	const client = postgres({ max: 1 });
	const query = Object.getPrototypeOf(client`select 1`);
	const { handle } = query;
	query.handle = function watched() {
		if (!this.watched) {
			this.watched = true;
			// rows that come some at a time are handed over as they come; the first of them tell their kinds
			const { cursorFn } = this;
			if (cursorFn)
				this.cursorFn = (rows) => {
					note(rows);
					return cursorFn(rows);
				};
			const { resolve } = this;
			this.resolve = (result) => {
				note(result);
				resolve(result);
			};
		}
		return handle.call(this);
	};
	// every so often too: the programs that run tests are ended without a word
	setInterval(write, 300).unref();
	process.on('exit', write);
}
