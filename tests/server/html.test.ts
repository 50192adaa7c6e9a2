// Every page that readers meet is HTML as the standard has it (html-validate's rules of the WHATWG's), whoever asks and in a language from right to
// left too: the pages stand in the guard's table, so that a new one is not forgotten.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { HtmlValidate } from 'html-validate';
import { beforeAll, describe, expect, it } from 'vitest';
import { table } from '#server/guard/table';
import { document, member, staff, visitor, type Client } from './help';
import { addressOf } from './routes';

const pages = Object.entries(table).filter(([id, { answers, english }]) => answers === 'page' && !english && !id.startsWith('/desk') && !id.startsWith('/api'));
let filled: Record<string, string> = {};
/** What else such a page may show. */
let more: string[] = [];
let clients: readonly (readonly [name: string, client: Client])[] = [];

beforeAll(async () => {
	const boss = await staff();
	const open = await document({ position: 'open' });
	const kept = await document({ position: 'keyed', allMembers: true, announced: true });
	const drawn = await document({ position: 'open', allow: { save: false, print: false } });
	const article = await boss.api<{ path: string }>('POST', '/pages', {
		path: '/html',
		title: 'HTML',
		layout: 'article',
		content: { type: 'doc', content: [] }
	});
	await boss.api('PATCH', '/pages/html', { door: { position: 'open' } });
	await boss.api('POST', '/pages/html/publish', {});
	filled = { slug: open.slug, path: 'html', token: 'x'.repeat(43), width: '300', page: '1', number: '1' };
	more = [
		'/',
		article.path,
		'/nothing-is-here',
		'/find?q=page',
		'/find?q=nothing-has-this',
		`/d/${kept.slug}`,
		`/d/${kept.slug}/read`,
		`/d/${drawn.slug}`,
		`/d/${drawn.slug}/read`
	];
	clients = [
		['visitor', visitor()],
		['member', await member()],
		['staff', boss]
	];
});

describe('pages of the site', () => {
	it('are HTML as the standard has it, for a visitor, a member and staff, in English and in Arabic', async () => {
		const validator = new HtmlValidate({ extends: ['html-validate:standard'] });
		const wrong = new Set<string>();
		let seen = 0;
		for (const [name, client] of clients)
			for (const language of ['en', 'ar'])
				for (const address of [...pages.map(([id]) => addressOf(id, filled)), ...more]) {
					const response = await client.get(address, { 'accept-language': language, accept: 'text/html' });
					const text = await response.text();
					if (!response.headers.get('content-type')?.startsWith('text/html')) continue;
					seen++;
					const { results } = await validator.validateString(text);
					for (const { ruleId, message, line } of results.flatMap((r) => r.messages))
						wrong.add(`${address} (${name}, ${language}): ${ruleId}: ${message} (line ${line})`);
				}
		expect([...wrong]).toEqual([]);
		expect(seen).toBeGreaterThan(6 * more.length);
	});
});

/** The names of classes that a layer of a stylesheet styles. */
function classesIn(layer: string, css: string): Set<string> {
	const begin = css.indexOf(`@layer ${layer}{`);
	let [depth, end] = [0, begin];
	do depth += css[end] === '{' ? 1 : css[end] === '}' ? -1 : 0;
	while (++end < css.length && (depth > 0 || !css.slice(begin, end).includes('{')));
	return new Set([...css.slice(begin, end).matchAll(/\.([a-zA-Z][\w-]*)\{/g)].map((m) => m[1]!));
}

describe('styles', () => {
	it.each([
		['site', ['src/lib/ui/placing', 'src/lib/ui/reading', 'src/lib/ui/news', 'src/routes'], 'desk/'],
		['theme', ['src/lib/ui', 'src/routes/desk'], 'none/']
	] as const)('of the %s name no class as a utility is named: it would style that too', (sheet, folders, but) => {
		const built = 'build/client/_app/immutable/assets';
		const [css] = readdirSync(built).filter((name) => name.startsWith(`${sheet}.`) && name.endsWith('.css'));
		const utilities = classesIn('utilities', readFileSync(join(built, css!), 'utf8')); // both are built
		expect(utilities.size).toBeGreaterThan(10);
		const files = folders.flatMap((folder) =>
			readdirSync(folder, { recursive: true, encoding: 'utf8' })
				.filter((name) => name.endsWith('.svelte') && !name.startsWith(but))
				.map((name) => join(folder, name))
		);
		expect(files.length).toBeGreaterThan(50);
		const named = files.flatMap((file) => {
			const style = /<style>([^]*)<\/style>/.exec(readFileSync(file, 'utf8'))?.[1] ?? '';
			return [...style.replace(/\/\*[^]*?\*\//g, '').matchAll(/\.([a-zA-Z][\w-]*)(?=[^;{}]*\{)/g)].map((m) => `${file} .${m[1]!}`);
		});
		expect(named.filter((one) => utilities.has(one.split(' .')[1]!))).toEqual([]);
	});
});
