// For search engines and feed readers: what a visitor sees listed, and nothing else.
import { visitor } from '#core/access/decide';
import { readableBy } from '../access/readable';
import { sql } from '../db/client';
import { settings } from '../settings';

/** A text within XML. */
export const xml = (text: string): string =>
	// XML 1.0, 2.2: control characters cannot stand in it at all
	text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '').replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

export interface Listed {
	readonly path: string;
	readonly at: Date;
}

/** The addresses of pages and documents that a visitor sees listed, for sitemap.xml. */
export async function listedAddresses(): Promise<Listed[]> {
	const s = sql();
	const nobody = { who: visitor, person: null };
	const [pages, documents] = await Promise.all([
		s<Listed[]>`
			select p.path, r.published_at as at from thing_in_force t join page p on p.id = t.id join revision r on r.id = p.published_id
			where t.kind = 'page' and t.listed and position_at(t.set_position, t.from_at, t.until_at, now()) = 'open' order by p.path`,
		s<Listed[]>`
			select '/d/' || d.slug as path, e.created_at as at from document d join edition e on e.id = d.edition_id
			where (d.id in (${(await readableBy(nobody)).ids})) is true order by e.created_at desc`
	]);
	return [...pages, ...documents];
}

/** sitemap.xml after sitemaps.org 0.9: at most 50,000 addresses in one file. */
export async function sitemap(): Promise<string> {
	const { IANUA_ORIGIN } = settings();
	const urls = (await listedAddresses())
		.slice(0, 50_000)
		.map(({ path, at }) => `\t<url><loc>${xml(IANUA_ORIGIN + path)}</loc><lastmod>${at.toISOString()}</lastmod></url>`);
	return `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${urls.join('\n')}\n</urlset>\n`;
}

export interface Feed {
	readonly id: string;
	readonly self: string;
	/** The page of the same. */
	readonly page: string;
	readonly title: string;
	readonly author: string;
	/** The newest first, instants as RFC 3339 has them. */
	readonly entries: readonly { readonly id: string; readonly title: string; readonly updated: string; readonly href: string; readonly summary: string }[];
}

/** A feed (RFC 4287, Atom); all that is given is text. */
export function atomFeed({ id, self, page, title, author, entries }: Feed): string {
	const entry = (one: Feed['entries'][number]) => `\t<entry>
		<id>${xml(one.id)}</id>
		<title>${xml(one.title)}</title>
		<updated>${one.updated}</updated>
		<link rel="alternate" type="text/html" href="${xml(one.href)}"/>
		<summary>${xml(one.summary)}</summary>
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
