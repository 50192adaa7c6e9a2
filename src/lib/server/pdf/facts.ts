// What a PDF is made of, read by pdfinfo and qpdf.
import { StringDecoder } from 'node:string_decoder';
import type { Facts, OutlineLine } from '#core/intake/condition';
import { pdfDate } from '#core/intake/pdf-date';
import { limits, run } from './run';

/** `qpdf --requires-password`: 0 a password is needed, 2 not encrypted, 3 encrypted but opens without one. */
export async function passwordState(path: string): Promise<'needed' | 'none' | 'opens' | 'unknown'> {
	const { code } = await run('qpdf', ['--requires-password', path], limits.structure);
	return code === 0 ? 'needed' : code === 2 ? 'none' : code === 3 ? 'opens' : 'unknown';
}

/** Pages beyond this many are not measured one by one. */
const measured = 5000;
const mostRuns = 1000;

/** What pdfinfo tells: enough to make a document of a file. */
export type FirstFacts = Omit<Facts, 'guessed' | 'text' | 'textPages' | keyof Structure>;

/** What pdfinfo tells, or null where not even the number of pages can be read. `encrypted` comes from `passwordState`. */
export async function firstFacts(path: string, version: string, encrypted: boolean): Promise<FirstFacts | null> {
	const info = await run('pdfinfo', ['-enc', 'UTF-8', '-rawdates', '-f', '1', '-l', String(measured), path], limits.facts);
	// 99 is poppler's answer to an impossible number of pages; trust output only on success
	if (info.code !== 0) return null;
	const plain = (text: string) =>
		text
			.replace(/[\u0000-\u001f\u007f-\u009f\u200e\u200f\u202a-\u202e\u2066-\u2069]/g, ' ')
			.replace(/\s+/g, ' ')
			.trim();
	const field = (name: string) => plain(new RegExp(`^${name}:[ \\t]*(.*)$`, 'm').exec(info.output)?.[1] ?? '') || null;
	const pages = Number(field('Pages') ?? 0);
	if (!Number.isInteger(pages) || pages < 1) return null;

	const sizes: { width: number; height: number; pages: number }[] = [];
	const runs: { width: number; height: number; pages: number }[] = [];
	const rotations = new Map([...info.output.matchAll(/^Page\s+(\d+) rot:\s+(\d+)/gm)].map((m) => [m[1]!, Number(m[2])]));
	for (const m of info.output.matchAll(/^Page\s+(\d+) size:\s+([\d.]+) x ([\d.]+) pts/gm)) {
		const turned = (rotations.get(m[1]!) ?? 0) % 180 !== 0;
		const [width, height] = turned ? [Number(m[3]), Number(m[2])] : [Number(m[2]), Number(m[3])];
		const same = sizes.find((s) => s.width === width && s.height === height);
		if (same) same.pages++;
		// a file may give each of its pages another size; the first hundred sizes say enough
		else if (sizes.length < 100) sizes.push({ width, height, pages: 1 });
		const run = runs.at(-1);
		if (run?.width === width && run.height === height) run.pages++;
		else runs.push({ width, height, pages: 1 });
	}
	const permits = /print:(yes|no) copy:(yes|no)/.exec(field('Encrypted') ?? '');
	const form = field('Form') ?? 'none';
	return {
		version,
		pages,
		sizes,
		...(runs.length <= mostRuns ? { runs } : {}),
		title: field('Title'),
		author: field('Author'),
		subject: field('Subject'),
		producer: field('Producer'),
		createdAt: pdfDate(field('CreationDate') ?? ''),
		changedAt: pdfDate(field('ModDate') ?? ''),
		encrypted,
		permits: { print: permits?.[1] !== 'no', copy: permits?.[2] !== 'no' },
		tagged: field('Tagged') === 'yes',
		form: form !== 'none',
		xfa: form === 'XFA'
	};
}

/** What qpdf tells of a file's objects. */
export interface Structure {
	readonly language: string | null;
	readonly active: readonly string[];
	readonly attachments: readonly { readonly name: string }[];
	readonly outline: readonly OutlineLine[];
	readonly signed: boolean;
	readonly repaired: boolean;
}

/** Names of objects that act by themselves when the file is opened or used, and what they are called in words. */
const acting: readonly (readonly [RegExp, string])[] = [
	[/"\/JS"|"\/JavaScript"/, 'JavaScript'],
	[/"\/S":\s*"\/Launch"/, 'starting a program'],
	[/"\/S":\s*"\/SubmitForm"/, 'sending a form'],
	[/"\/S":\s*"\/ImportData"/, 'reading in data'],
	[/"\/Subtype":\s*"\/RichMedia"|"\/Subtype":\s*"\/3D"/, 'embedded media']
];
const outlineLines = 2000;

/**
 * One run of qpdf over every object of the file. What stands before the objects (attachments, outline) is read whole; the objects
 * are looked at as they stream by, so that memory stays small: pdfinfo overlooks JavaScript in OpenAction and never tells of Launch.
 */
export async function structureOf(path: string): Promise<Structure> {
	const active = new Set<string>();
	const decoder = new StringDecoder('utf8');
	let head = '';
	let inObjects = false;
	let tail = '';
	let language: string | null = null;
	let signed = false;
	const keys = ['attachments', 'outlines', 'qpdf'].map((key) => `--json-key=${key}`);
	const { code } = await run('qpdf', ['--json', ...keys, '--json-stream-data=none', path], { ...limits.structure, output: 512 * 1024 * 1024 }, (chunk) => {
		let text = decoder.write(chunk);
		if (!inObjects) {
			head += text;
			const objects = head.search(/^ {2}"qpdf": \[/m);
			if (objects < 0) {
				// an outline this long is not read whole
				if (head.length > 32 * 1024 * 1024) head = head.slice(-64);
				return;
			}
			inObjects = true;
			text = head.slice(objects);
			head = head.slice(0, objects);
		}
		const seen = tail + text;
		for (const [what, words] of acting) if (!active.has(words) && what.test(seen)) active.add(words);
		language ??= /"\/Lang": "u:([A-Za-z]{2,3}(?:-[A-Za-z0-9]{2,8})*)"/.exec(seen)?.[1] ?? null;
		signed ||= /"\/(?:Type|FT)": "\/Sig"/.test(seen);
		tail = seen.slice(-200);
	});
	return { ...before(head), language, active: [...active].sort(), signed, repaired: code === 3 };
}

interface OutlineItem {
	title?: string;
	destpageposfrom1?: number | null;
	kids?: OutlineItem[];
}

/** Attachments and outline from the part of qpdf's JSON that stands before the objects. */
function before(head: string): Pick<Structure, 'attachments' | 'outline'> {
	try {
		const parsed = JSON.parse(`${head.trimEnd().replace(/,$/, '')}}`) as { attachments?: Record<string, { preferredname?: string }>; outlines?: OutlineItem[] };
		const outline: OutlineLine[] = [];
		const walk = (items: readonly OutlineItem[], depth: number) => {
			for (const item of items) {
				if (outline.length >= outlineLines) return;
				outline.push({ title: (item.title ?? '').slice(0, 300), page: item.destpageposfrom1 ?? null, depth });
				walk(item.kids ?? [], depth + 1);
			}
		};
		walk(parsed.outlines ?? [], 0);
		return { attachments: Object.entries(parsed.attachments ?? {}).map(([name, a]) => ({ name: a.preferredname || name })), outline };
	} catch {
		return { attachments: [], outline: [] };
	}
}
