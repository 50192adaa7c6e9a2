// The type of all pages, at build time, in two parts: the letters of plain English, and the rest of the Latin ones, which a page
// fetches only where it has one. Three weights then take as much as two. Made from Fontsource's files (both under the Open Font License).
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
// @ts-expect-error it comes without types
import subsetFont from 'subset-font';
import type { Plugin } from 'vite';

/** The font with only what the characters of a text need. */
const subset = subsetFont as (font: Uint8Array, text: string, options: { targetFormat: 'woff2' }) => Promise<Uint8Array>;

const require = createRequire(import.meta.url);
const folder = '.svelte-kit/plain-latin';
const faces = [
	['Literata', 'literata', 600],
	['Commissioner', 'commissioner', 400],
	['Commissioner', 'commissioner', 600]
] as const;

type Range = readonly [from: number, to: number];
/** ASCII, line ends among it; no-break space, £, §, ©, °, ·, ×; dashes, quotation marks, ellipsis; €. */
const plain: readonly Range[] = [
	[0x00, 0x7e],
	[0xa0, 0xa0],
	[0xa3, 0xa3],
	[0xa7, 0xa7],
	[0xa9, 0xa9],
	[0xb0, 0xb0],
	[0xb7, 0xb7],
	[0xd7, 0xd7],
	[0x2013, 0x2014],
	[0x2018, 0x2019],
	[0x201c, 0x201d],
	[0x2026, 0x2026],
	[0x20ac, 0x20ac]
];

const within = (ranges: readonly Range[], code: number) => ranges.some(([from, to]) => code >= from && code <= to);

/** What a style sheet's unicode-range names, as ranges. */
function ranges(text: string): Range[] {
	return [...text.matchAll(/U\+([0-9A-F]+)(?:-([0-9A-F]+))?/gi)].map((m) => [parseInt(m[1]!, 16), parseInt(m[2] ?? m[1]!, 16)]);
}

/** Ranges of single characters, those that follow each other in one, as a style sheet has them. */
function unicodeRange(codes: readonly number[]): string {
	const runs: [number, number][] = [];
	for (const code of codes) {
		const last = runs.at(-1);
		if (last?.[1] === code - 1) last[1] = code;
		else runs.push([code, code]);
	}
	return runs.map(([from, to]) => `U+${from.toString(16)}${to > from ? `-${to.toString(16)}` : ''}`).join(', ');
}

/** What the parts are made from: when it is the same as last time, they are there. */
function madeFrom(): string {
	const hash = createHash('sha256').update(readFileSync(fileURLToPath(import.meta.url)));
	for (const [, name, weight] of faces) hash.update(readFileSync(require.resolve(`@fontsource/${name}/${weight}.css`)));
	return hash.digest('hex');
}

async function make(): Promise<void> {
	const [stamp, now] = [join(folder, '.made-from'), madeFrom()];
	if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return;
	const rules: string[] = [];
	mkdirSync(folder, { recursive: true });
	for (const [family, name, weight] of faces) {
		const sheet = require.resolve(`@fontsource/${name}/${weight}.css`);
		const font = readFileSync(join(dirname(sheet), 'files', `${name}-latin-${weight}-normal.woff2`));
		// the sheet's last rule is that of the Latin letters
		const all = ranges([...readFileSync(sheet, 'utf8').matchAll(/unicode-range:([^;]+)/g)].at(-1)![1]!);
		const codes = all.flatMap(([from, to]) => Array.from({ length: to - from + 1 }, (_, i) => from + i));
		for (const [part, has] of [
			['rest', codes.filter((code) => !within(plain, code))],
			['plain', codes.filter((code) => within(plain, code))]
		] as const) {
			const file = `${name}-${weight}-${part}.woff2`;
			writeFileSync(join(folder, file), await subset(font, String.fromCodePoint(...has), { targetFormat: 'woff2' }));
			rules.push(
				`@font-face{font-family:'${family}';font-style:normal;font-display:swap;font-weight:${weight};src:url('./${file}') format('woff2');unicode-range:${unicodeRange(has)}}`
			);
		}
	}
	writeFileSync(join(folder, 'index.css'), `${rules.join('\n')}\n`);
	writeFileSync(stamp, now);
}

let made: Promise<void> | undefined;

export function plainLatin(): Plugin {
	return { name: 'plain-latin', buildStart: () => (made ??= make()) };
}
