// What a PDF is made of, read by pdfinfo, qpdf and pdftotext.
import type { Facts } from '#core/intake/condition';
import { pdfDate } from '#core/intake/pdf-date';
import { limits, run } from './run';

/** `qpdf --requires-password`: 0 a password is needed, 2 not encrypted, 3 encrypted but opens without one. */
export async function passwordState(path: string): Promise<'needed' | 'none' | 'opens' | 'unknown'> {
	const { code } = await run('qpdf', ['--requires-password', path], limits.structure);
	return code === 0 ? 'needed' : code === 2 ? 'none' : code === 3 ? 'opens' : 'unknown';
}

/** Pages beyond this many are not measured one by one. */
const measured = 5000;

/** The facts, or null where not even the number of pages can be read. `encrypted` comes from `passwordState`. */
export async function factsOf(path: string, version: string, encrypted: boolean): Promise<Facts | null> {
	const info = await run('pdfinfo', ['-enc', 'UTF-8', '-rawdates', '-f', '1', '-l', String(measured), path], limits.facts);
	// 99 is poppler's answer to an impossible number of pages; trust output only on success
	if (info.code !== 0) return null;
	const field = (name: string) => new RegExp(`^${name}:[ \\t]*(.*)$`, 'm').exec(info.output)?.[1]?.trim() || null;
	const pages = Number(field('Pages') ?? 0);
	if (!Number.isInteger(pages) || pages < 1) return null;

	const sizes: { width: number; height: number; pages: number }[] = [];
	const rotations = new Map([...info.output.matchAll(/^Page\s+(\d+) rot:\s+(\d+)/gm)].map((m) => [m[1]!, Number(m[2])]));
	for (const m of info.output.matchAll(/^Page\s+(\d+) size:\s+([\d.]+) x ([\d.]+) pts/gm)) {
		const turned = (rotations.get(m[1]!) ?? 0) % 180 !== 0;
		const [width, height] = turned ? [Number(m[3]), Number(m[2])] : [Number(m[2]), Number(m[3])];
		const same = sizes.find((s) => s.width === width && s.height === height);
		if (same) same.pages++;
		else sizes.push({ width, height, pages: 1 });
	}

	const permits = /print:(yes|no) copy:(yes|no)/.exec(field('Encrypted') ?? '');
	const [structure, language, active, text] = await Promise.all([
		run('qpdf', ['--json', '--json-key=attachments', '--json-key=encrypt', path], { ...limits.structure, output: 8 * 1024 * 1024 }),
		languageOf(path),
		activeContent(path),
		hasText(path, pages)
	]);
	return {
		version,
		pages,
		sizes,
		title: field('Title'),
		author: field('Author'),
		producer: field('Producer'),
		createdAt: pdfDate(field('CreationDate') ?? ''),
		changedAt: pdfDate(field('ModDate') ?? ''),
		encrypted,
		permits: { print: permits?.[1] !== 'no', copy: permits?.[2] !== 'no' },
		tagged: field('Tagged') === 'yes',
		language,
		form: (field('Form') ?? 'none') !== 'none',
		active,
		attachments: attachmentsIn(structure.output),
		hasText: text,
		// 3: read, with warnings of damage that was mended on the way
		repaired: structure.code === 3
	};
}

function attachmentsIn(output: string): number {
	try {
		const parsed = JSON.parse(output) as { attachments?: Record<string, unknown> };
		return Object.keys(parsed.attachments ?? {}).length;
	} catch {
		return 0;
	}
}

/** Kinds of active content. pdfinfo overlooks JavaScript in OpenAction and never tells of Launch, so every object is looked at. */
async function activeContent(path: string): Promise<string[]> {
	const found = new Set<string>();
	let tail = '';
	await run('qpdf', ['--json', '--json-key=qpdf', '--json-stream-data=none', path], { ...limits.structure, output: 512 * 1024 * 1024 }, (chunk) => {
		const text = tail + chunk.toString('latin1');
		if (/"\/JS"|"\/JavaScript"/.test(text)) found.add('JavaScript');
		if (/"\/S":\s*"\/Launch"/.test(text)) found.add('Launch');
		tail = text.slice(-40);
	});
	return [...found].sort();
}

async function languageOf(path: string): Promise<string | null> {
	const catalog = await run('qpdf', ['--json', '--json-key=qpdf', '--json-object=trailer', path], { ...limits.structure, output: 1024 * 1024 });
	const root = /"\/Root":\s*"(\d+) (\d+) R"/.exec(catalog.output);
	if (!root) return null;
	const object = await run('qpdf', ['--json', '--json-key=qpdf', `--json-object=${root[1]},${root[2]}`, path], { ...limits.structure, output: 1024 * 1024 });
	return /"\/Lang":\s*"u:([A-Za-z]{2,3}(?:-[A-Za-z0-9]{2,8})*)"/.exec(object.output)?.[1] ?? null;
}

/** Whether the first pages have words in them. */
async function hasText(path: string, pages: number): Promise<boolean> {
	const text = await run('pdftotext', ['-enc', 'UTF-8', '-f', '1', '-l', String(Math.min(pages, 10)), path, '-'], limits.text);
	return /\p{L}{2,}/u.test(text.output);
}
