// The reading text: on files that nobody here made, against their own tags, against the text that a browser printed, and over HTTP.
import { execFile } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { describe, expect, it } from 'vitest';
import { flow, plainText, type Block } from '#core/reading/flow';
import { blocksOfStructure } from '#core/reading/structure';
import { readSheets } from '#server/pdf/leaf-text';
import { tagsOf } from '#server/pdf/tags';
import { chromiumOptions } from '../../scripts/chromium';
import { samples } from '../../scripts/samples';
import { document, ledgerOf, member, send, staff, visitor, type DocumentJson } from './help';

const run = promisify(execFile);
const big = { maxBuffer: 1e9 };
const wordsOf = (text: string) => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
/** The share of runs of four words that two texts have in common. */
function alike(a: readonly string[], b: readonly string[]): number {
	const runs = (words: readonly string[]) => new Set(words.slice(3).map((_, i) => words.slice(i, i + 4).join(' ')));
	const [one, other] = [runs(a), runs(b)];
	return (2 * [...one].filter((run) => other.has(run)).length) / (one.size + other.size);
}
const fromLines = async (path: string) => {
	const { stdout } = await run('pdftotext', ['-bbox-layout', '-cropbox', '-enc', 'UTF-8', path, '-'], big);
	return flow(readSheets(stdout).map((sheet, i) => ({ page: i + 1, ...sheet })));
};
const fromTags = async (path: string) => {
	const pages = Number(/Pages: +(\d+)/.exec((await run('pdfinfo', [path])).stdout)![1]);
	return (await tagsOf(path, 1, pages)).map((tree, i) => ({ page: i + 1, blocks: tree ? blocksOfStructure(tree) : [] }));
};
const headings = (blocks: readonly Block[]) => blocks.flatMap((b) => (b.kind === 'heading' ? [b.text] : []));
const all = (pages: readonly { blocks: readonly Block[] }[]) => pages.flatMap((p) => p.blocks);

describe('files of others, their lines against their tags', () => {
	for (const [name, path] of [
		['the handbook', samples.tagged],
		['the tools', samples.tools]
	] as const)
		it(`${name}: the same words in the same order, headings among headings`, async () => {
			const [lines, tags] = await Promise.all([fromLines(path), fromTags(path)]);
			expect(alike(wordsOf(plainText(all(lines))), wordsOf(plainText(all(tags))))).toBeGreaterThan(0.95);
			// those of the first two levels of the tags; the smallest are set like the text around them
			const known = new Set(headings(all(lines)).map((text) => text.toLowerCase()));
			const wanted = all(tags).flatMap((b) => (b.kind === 'heading' && b.level < 3 ? [b.text.toLowerCase()] : []));
			expect(wanted.length).toBeGreaterThan(2);
			expect(wanted.filter((text) => !known.has(text))).toEqual([]);
			// every page has its own
			expect(tags.map((p) => p.blocks.length > 0)).not.toContain(false);
		});
	it('a page set in columns by a browser: title, columns one after the other, table by rows', async () => {
		const folder = mkdtempSync(join(tmpdir(), 'ianua-columns-'));
		try {
			const paragraphs = Array.from(
				{ length: 9 },
				(_, i) =>
					`Paragraph ${i + 1} says that the wardens walk the flight each morning and note the level at the upper gauge before the first boat goes up the hill, whatever the weather.`
			);
			const html = `<html lang="en"><title>Columns</title><style>@page{size:A4;margin:22mm 18mm}section{columns:2;column-gap:24px}p{margin:0 0 8px;font:13px serif}h1{font:26px serif}h2{font:18px serif}td{padding-right:40px;font:13px serif}</style>
				<h1>Report of the year</h1><section>${paragraphs.map((p) => `<p>${p}</p>`).join('')}</section>
				<h2>Closed locks</h2><table><tr><td>Lock 3</td><td>November</td><td>Gates</td></tr><tr><td>Lock 6</td><td>December</td><td>Cill</td></tr><tr><td>Lock 9</td><td>January</td><td>Paddles</td></tr></table>
				<div style="break-before:page"></div><h2>Thanks</h2><p>To all who helped.</p><div style="break-before:page"></div><h2>Figures</h2><p>They follow in spring.</p></html>`;
			const [page, pdf] = [join(folder, 'page.html'), join(folder, 'page.pdf')];
			writeFileSync(page, html);
			await run(chromiumOptions.executablePath, [...chromiumOptions.args, '--no-pdf-header-footer', `--print-to-pdf=${pdf}`, `file://${page}`]);
			const blocks = all(await fromLines(pdf));
			expect(headings(blocks)).toEqual(['Report of the year', 'Closed locks', 'Thanks', 'Figures']);
			expect(blocks.filter((b) => b.kind === 'paragraph').map((b) => b.text)).toEqual([...paragraphs, 'To all who helped.', 'They follow in spring.']);
			expect(blocks.find((b) => b.kind === 'table')).toMatchObject({
				rows: [
					['Lock 3', 'November', 'Gates'],
					['Lock 6', 'December', 'Cill'],
					['Lock 9', 'January', 'Paddles']
				]
			});
		} finally {
			rmSync(folder, { recursive: true });
		}
	});
});

const bringIn = async (path: string, door: Record<string, unknown>) => {
	const { slug } = (await (await send(readFileSync(path), 'handbook.pdf')).json()) as DocumentJson;
	await (await staff()).api('PATCH', `/documents/${slug}`, { door });
	return slug;
};
const html = async (response: Promise<Response>) => (await response).text();

describe('over HTTP', () => {
	it('a tagged handbook: headings, tables, marks that lead to the page as printed, in parts; the whole as plain text', async () => {
		const slug = await bringIn(samples.tagged, { position: 'open' });
		const first = await html(visitor().get(`/d/${slug}/text`));
		expect(first).toMatch(/<h2[^>]*>(?:<!---->)?Introduction(?:<!---->)?<\/h2>/);
		expect(first).toMatch(/<td[^>]*>EncodingName<\/td>/);
		expect(first).toContain(`href="/d/${slug}/read#page=2"`);
		expect(first).toContain('lang="en-US"');
		expect(first).not.toContain('id="p11"');
		expect(first).toContain(`href="/d/${slug}/text?page=11#p11"`);
		const second = await html(visitor().get(`/d/${slug}/text?page=11`));
		expect([second.includes('id="p11"'), second.includes('id="p10"')]).toEqual([true, false]);
		const plain = await visitor().get(`/d/${slug}/text?plain`, { accept: 'text/html,*/*' });
		expect([plain.status, plain.headers.get('content-type')]).toEqual([200, 'text/plain; charset=utf-8']);
		const text = await plain.text();
		expect(text.split('\f')).toHaveLength(12);
		expect(text).toContain('EncodingName\ta canonical name');
		// read in one go: one opening, by text as by pages
		expect((await ledgerOf(slug)).filter((e) => e.kind === 'opened')).toHaveLength(1);
	});
	it('how it is set is a link and a cookie', async () => {
		const paper = await document({ position: 'open' });
		const chosen = await visitor().get(`/d/${paper.slug}/text?size=largest&paper=straw`);
		expect(chosen.headers.getSetCookie().join()).toContain('ianua_text=largest.normal.normal.straw');
		expect(await chosen.text()).toMatch(/class="[^"]*size-largest[^"]*on-straw/);
		expect(await html(visitor().get(`/d/${paper.slug}/text`, { cookie: 'ianua_text=small.wide.narrow.night' }))).toMatch(
			/class="[^"]*size-small spacing-wide width-narrow on-night/
		);
	});
	it('what has no words is shown as pictures', async () => {
		const slug = await bringIn(samples.scanned, { position: 'open' });
		const text = await html(visitor().get(`/d/${slug}/text`));
		expect(text).toContain(`/d/${slug}/leaf/2.webp`);
		expect(text).toContain('Page 1 has no words');
	});
	it('the door decides as it does for the pages: refused like them, admitted like them, read only too', async () => {
		const someone = await member({ group: 'Text readers' });
		const kept = await document({ position: 'keyed', groups: ['text-readers'], allow: { save: false, print: false } });
		for (const path of ['/text', '/text?plain', '/text/plain']) {
			expect([path, (await visitor().get(`/d/${kept.slug}${path}`)).status]).toEqual([path, 401]);
			const admitted = await someone.get(`/d/${kept.slug}${path}`);
			expect([path, admitted.status]).toEqual([path, 200]);
			expect(await admitted.text()).toMatch(/page 1/i);
		}
		const shut = await document({ position: 'shut' });
		expect((await visitor().get(`/d/${shut.slug}/text`)).status).toBe(404);
		expect((await visitor().get(`/d/never-was/text?plain`)).status).toBe(404);
		expect((await ledgerOf(kept.slug)).map((e) => e.kind)).toEqual(expect.arrayContaining(['opened', 'turned-away']));
	});
	it('pages that are not there are not there: the last stands in their place, and nonsense is the first', async () => {
		const paper = await document({ position: 'open' }, 3);
		expect(await html(visitor().get(`/d/${paper.slug}/text?page=99`))).toContain('id="p3"');
		expect(await html(visitor().get(`/d/${paper.slug}/text?page=x`))).toContain('id="p1"');
	});
});
