// Finds the objects of a PDF that act by themselves, in qpdf's JSON as it streams by, and says what they become without that.
import { StringDecoder } from 'node:string_decoder';

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

/** Action types that run, send, start or fetch something (ISO 32000-1, table 198). */
const acts = new Set(['/JavaScript', '/Launch', '/SubmitForm', '/ImportData', '/Rendition', '/Movie', '/Sound', '/GoTo3DView', '/RichMediaExecute']);
const media = new Set(['/RichMedia', '/3D', '/Movie', '/Screen', '/Sound']);
const isDictionary = (value: Json): value is { [key: string]: Json } => typeof value === 'object' && value !== null && !Array.isArray(value);

const isActive = (value: Json) =>
	isDictionary(value) &&
	((typeof value['/S'] === 'string' && acts.has(value['/S'])) || (typeof value['/Subtype'] === 'string' && media.has(value['/Subtype']) && '/Rect' in value));

/** A value without what acts: such actions and annotations become null, which means absent (ISO 32000-1, 7.3.9). */
export function withoutActive(value: Json): Json {
	if (isActive(value)) return null;
	if (Array.isArray(value)) return value.map(withoutActive);
	if (!isDictionary(value)) return value;
	return Object.fromEntries(
		Object.entries(value)
			// /AA: actions for events (12.6.3); /JavaScript: the name tree of scripts (12.6.4.16); /JS: a script
			.filter(([key]) => key !== '/AA' && key !== '/JS' && key !== '/JavaScript')
			.map(([key, inner]) => [key, withoutActive(inner)] as const)
			.filter(([key, inner]) => !(inner === null && (key === '/A' || key === '/OpenAction' || key === '/Next')))
	);
}

/** Looks at `qpdf --json --json-key=qpdf` chunk by chunk; `changes()` is then what `qpdf --update-from-json` takes. */
export function stripActive(): { take: (chunk: Buffer) => void; changes: () => unknown } {
	const decoder = new StringDecoder('utf8');
	let rest = '';
	let name: string | null = null;
	let lines: string[] = [];
	let header: Json = null;
	const changed: Record<string, Json> = {};

	function line(text: string): void {
		// objects stand six spaces deep, each closed by a brace at the same depth
		const begins = /^ {6}"(obj:\d+ \d+ R)": \{$/.exec(text);
		if (begins) {
			name = begins[1]!;
			lines = [];
		} else if (name !== null && /^ {6}\},?$/.test(text)) {
			end();
		} else if (name !== null) lines.push(text);
		else {
			const version = /^ {6}"pdfversion": "([\d.]+)"/.exec(text);
			if (version) header = version[1]!;
		}
	}

	function end(): void {
		const text = lines.join('\n');
		if (/"\/(?:JS|JavaScript|AA|Launch|SubmitForm|ImportData|Rendition|Movie|Sound|GoTo3DView|RichMedia\w*|3D|Screen)"/.test(text)) {
			const parsed = JSON.parse(`{${text}}`) as { value?: Json; stream?: { dict: Json } };
			// values come after the name of their object
			if (parsed.value !== undefined) changed[name!] = { value: withoutActive(parsed.value) };
			// as above
			else if (parsed.stream) changed[name!] = { stream: { dict: withoutActive(parsed.stream.dict) ?? {} } };
		}
		name = null;
	}

	return {
		take: (chunk) => {
			const parts = (rest + decoder.write(chunk)).split('\n');
			// split gives one part at least
			rest = parts.pop()!;
			for (const part of parts) line(part);
		},
		changes: () => ({ version: 2, qpdf: [{ jsonversion: 2, pdfversion: header ?? '1.7', maxobjectid: 0 }, changed] })
	};
}
