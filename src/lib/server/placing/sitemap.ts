// For search engines and feed readers: what a visitor sees listed, and nothing else.
import { visitor } from '#core/access/decide';
import { untilTurn } from '../access/hours';
import { readableBy } from '../access/readable';
import { Cache } from '../db/cache';
import { sql } from '../db/client';
import { settings } from '../settings';
import { site } from '../site/site';
import type { SeenList } from './contract';

/** A text within XML. */
export const xml = (text: string): string =>
	// XML 1.0, 2.2: control characters cannot stand in it at all
	text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '').replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

export interface Listed {
	readonly path: string;
	readonly at: Date;
	readonly title: string;
	/** Of a document; 0 of a page. */
	readonly pages: number;
}

/** Of a large site, which has several files, one search engine asks for all of them: they are parts of one list. */
const known = new Cache<readonly Listed[]>({ most: 250_000, weigh: (listed) => listed.length, within: 0 });

/** The addresses of pages and documents that a visitor sees listed: for search engines, and for programs that read. */
const listedAddresses = (): Promise<readonly Listed[]> => known.get('listed', () => untilTurn(readListed));

async function readListed(): Promise<Listed[]> {
	const s = sql();
	const nobody = { who: visitor, person: null };
	const [pages, documents] = await Promise.all([
		s<Listed[]>`
			select p.path, r.published_at as at, r.title, 0 as pages from thing_in_force t join page p on p.id = t.id join revision r on r.id = p.published_id
			where t.kind = 'page' and t.listed and position_at(t.set_position, t.from_at, t.until_at, now()) = 'open' order by p.path`,
		s<Listed[]>`
			select '/d/' || d.slug as path, e.created_at as at, d.title, e.pages from document d join edition e on e.id = d.edition_id
			where (d.id in (${(await readableBy(nobody)).ids})) is true order by e.created_at desc`
	]);
	return [...pages, ...documents];
}

/** Addresses in one file (sitemaps.org 0.9: at most 50,000). */
export const inOneFile = 50_000;
/** Documents that llms.txt names; the others stand in the sitemap. */
const inLlms = 2_000;

/** What is made of the listed addresses, for as long as it is true: until something changes, or the hours of a door begin or end. */
const made = new Cache<string>({ most: 40_000_000, weigh: (text) => text.length, within: 0 });
const kept = (key: string, make: () => Promise<string>) => made.get(key, () => untilTurn(make));

const xmlHead = '<?xml version="1.0" encoding="UTF-8"?>';
const namespace = 'xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"';

/**
 * sitemap.xml after sitemaps.org 0.9: the addresses, or where they are more than one file may have, an index of files, which are asked for by
 * their number from 1. Null where there is no such file.
 */
export async function sitemap(part: number | null, most = inOneFile): Promise<string | null> {
	const text = await kept(`sitemap ${part ?? ''} ${most}`, async () => {
		const { IANUA_ORIGIN } = settings();
		const listed = await listedAddresses();
		const files = Math.max(1, Math.ceil(listed.length / most));
		if (part !== null && part > files) return '';
		if (part === null && files > 1) {
			const each = Array.from({ length: files }, (_, i) => `\t<sitemap><loc>${xml(`${IANUA_ORIGIN}/sitemap.xml?part=${i + 1}`)}</loc></sitemap>`);
			return `${xmlHead}\n<sitemapindex ${namespace}>\n${each.join('\n')}\n</sitemapindex>\n`;
		}
		const first = ((part ?? 1) - 1) * most;
		const urls = listed
			.slice(first, first + most)
			.map(({ path, at }) => `\t<url><loc>${xml(IANUA_ORIGIN + path)}</loc><lastmod>${at.toISOString()}</lastmod></url>`);
		return `${xmlHead}\n<urlset ${namespace}>\n${urls.join('\n')}\n</urlset>\n`;
	});
	return text || null;
}

/** llms.txt, a site in Markdown for language models (llmstxt.org, from memory): its pages, and its documents with the address of their text. */
export const llmsTxt = (): Promise<string> =>
	kept('llms', async () => {
		const { IANUA_ORIGIN } = settings();
		const { name } = await site();
		const plain = (text: string) => text.replace(/[\\`*_[\]<>#]/g, '\\$&').replace(/\s+/g, ' ');
		const listed = await listedAddresses();
		const [pages, documents] = [listed.filter((one) => !one.pages), listed.filter((one) => one.pages)];
		const lines = [
			`# ${plain(name)}`,
			'',
			'> What everybody may read here. Of each document its text stands at the address given behind it.',
			...(pages.length ? ['', '## Pages', '', ...pages.map(({ title, path }) => `- [${plain(title)}](${IANUA_ORIGIN}${path})`)] : []),
			...(documents.length
				? [
						'',
						'## Documents',
						'',
						...documents
							.slice(0, inLlms)
							.map(
								({ title, path, pages: n }) =>
									`- [${plain(title)}](${IANUA_ORIGIN}${path}): ${n} ${n === 1 ? 'page' : 'pages'}, text at ${IANUA_ORIGIN}${path}/text/plain`
							)
					]
				: []),
			...(documents.length > inLlms ? ['', `There are ${documents.length - inLlms} more: ${IANUA_ORIGIN}/sitemap.xml`] : [])
		];
		return `${lines.join('\n')}\n`;
	});

export interface Feed {
	readonly id: string;
	readonly self: string;
	/** The page of the same. */
	readonly page: string;
	readonly title: string;
	readonly author: string;
	/** The newest first, instants as RFC 3339 has them. */
	readonly entries: readonly FeedEntry[];
}

export interface FeedEntry {
	readonly id: string;
	readonly title: string;
	readonly updated: string;
	readonly href: string;
	readonly summary: string;
	/** The PDF itself, where whoever reads the feed gets it without signing in. */
	readonly file?: { readonly href: string; readonly bytes: number };
}

/** A feed (RFC 4287, Atom); all that is given is text. */
export function atomFeed({ id, self, page, title, author, entries }: Feed): string {
	const entry = (one: FeedEntry) => `\t<entry>
		<id>${xml(one.id)}</id>
		<title>${xml(one.title)}</title>
		<updated>${one.updated}</updated>
		<link rel="alternate" type="text/html" href="${xml(one.href)}"/>
${one.file ? `\t\t<link rel="enclosure" type="application/pdf" length="${one.file.bytes}" href="${xml(one.file.href)}"/>\n` : ''}		<summary>${xml(one.summary)}</summary>
	</entry>`;
	return `<?xml version="1.0" encoding="utf-8"?>
<feed xmlns="http://www.w3.org/2005/Atom">
	<id>${xml(id)}</id>
	<title>${xml(title)}</title>
	<updated>${entries[0]?.updated ?? new Date(0).toISOString()}</updated>
	<author><name>${xml(author)}</name></author>
	<link rel="self" type="application/atom+xml" href="${xml(self)}"/>
	<link rel="alternate" type="text/html" href="${xml(page)}"/>
${entries.map(entry).join('\n')}
</feed>
`;
}

/** The feed of a list that visitors see, with the PDFs; `address` is its path. */
export function feedOfList(
	{ address, query = '', id, page, title, author }: { address: string; query?: string; id?: string; page: string; title: string; author: string },
	list: Pick<SeenList, 'items'>
): string {
	const { IANUA_ORIGIN } = settings();
	const self = IANUA_ORIGIN + address + (query && `?${query}`);
	return atomFeed({
		id: id ?? self,
		self,
		page,
		title,
		author,
		entries: list.items.map(({ slug, title, changedAt, description, facts, bytes }) => ({
			id: `${IANUA_ORIGIN}/d/${slug}`,
			title,
			updated: changedAt,
			href: `${IANUA_ORIGIN}/d/${slug}`,
			summary: description || facts,
			file: { href: `${IANUA_ORIGIN}/d/${slug}/file`, bytes }
		}))
	});
}
