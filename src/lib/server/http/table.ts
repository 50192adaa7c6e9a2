// Tables that are sent (CSV, RFC 4180), in whichever encoding and with whichever separator.
import Papa from 'papaparse';
import { IanuaError } from '#core/errors';

/** Largest table taken, in bytes and lines. */
export const tableLimits = { bytes: 10 * 1024 * 1024, lines: 50_000 } as const;

export interface Table {
	readonly header: readonly string[];
	readonly rows: readonly (readonly string[])[];
	readonly encoding: 'UTF-8' | 'UTF-16' | 'Windows-1252';
	readonly delimiter: string;
}

/** What Windows-1252 has from 0x80 to 0x9f, where Latin-1 has control characters (WHATWG Encoding, index-windows-1252; Node 20 decodes it as Latin-1). */
const windows1252 = Array.from('€\x81‚ƒ„…†‡ˆ‰Š‹Œ\x8dŽ\x8f\x90‘’“”•–—˜™š›œ\x9džŸ');

/** The text of a table: UTF-8 or UTF-16 by its mark, UTF-8 where it is valid, else Windows-1252. */
function textOf(bytes: Uint8Array): { text: string; encoding: Table['encoding'] } {
	if ((bytes[0] === 0xff && bytes[1] === 0xfe) || (bytes[0] === 0xfe && bytes[1] === 0xff))
		return { text: new TextDecoder(bytes[0] === 0xff ? 'utf-16le' : 'utf-16be').decode(bytes), encoding: 'UTF-16' };
	try {
		return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
	} catch {
		return {
			text: Buffer.from(bytes)
				.toString('latin1')
				.replace(/[\x80-\x9f]/g, (c) => windows1252[c.charCodeAt(0) - 0x80]!),
			encoding: 'Windows-1252'
		};
	}
}

/** Reads a table. Throws `table-unreadable` with the line where quotes do not close or there is no line of headings. */
export function readTable(bytes: Uint8Array): Table {
	if (bytes.length > tableLimits.bytes) throw new IanuaError('body-too-large');
	const { text, encoding } = textOf(bytes);
	// guessed without empty lines, which count as lines of one field; read with them, so that lines keep their numbers
	const { delimiter } = Papa.parse<string[]>(text, { preview: 20, skipEmptyLines: true }).meta;
	const parsed = Papa.parse<string[]>(text, { delimiter, skipEmptyLines: false });
	const broken = parsed.errors.find((e) => e.type === 'Quotes');
	if (broken) throw new IanuaError('table-unreadable', { detail: `a quotation mark in line ${(broken.row ?? 0) + 1} is not closed` });
	if (text.includes('\0')) throw new IanuaError('table-unreadable', { detail: 'it is not a text' });
	// what was taken away from here with a sign before it, so that no program takes it for a formula, is read without that sign
	const [header, ...rows] = parsed.data.map((row) => row.map((cell) => cell.replace(/^'(?=[=+\-@\t\r])/, '')));
	if (!header || header.every((h) => h.trim() === '')) throw new IanuaError('table-unreadable', { detail: 'its first line has no headings' });
	if (rows.length > tableLimits.lines)
		throw new IanuaError('table-unreadable', { detail: `it has more than ${tableLimits.lines.toLocaleString('en-GB')} lines` });
	return { header, rows, encoding, delimiter: parsed.meta.delimiter };
}
