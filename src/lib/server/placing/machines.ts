// For search engines and feed readers: what a visitor sees listed, and nothing else.
import { isListed, visitor } from '#core/access/decide';
import { thingOf, type ThingRow } from '../access/things';
import { sql } from '../db/client';
import { settings } from '../settings';
import { site } from '../site/site';

export const xml = (text: string): string =>
	// XML 1.0, 2.2: control characters cannot stand in it at all
	text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '').replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

export interface Listed {
	readonly path: string;
	readonly at: Date;
}

/** The addresses of pages and documents that a visitor sees listed, for sitemap.xml. */
export async function listedAddresses(now = Date.now()): Promise<Listed[]> {
	const s = sql();
	const [pages, documents, { zone }] = await Promise.all([
		s<(ThingRow & Listed)[]>`
			select p.path, r.published_at as at, p.set_aside_at, door_json(p.door_id) as door from page p join revision r on r.id = p.published_id where p.set_aside_at is null order by p.path`,
		s<(ThingRow & Listed)[]>`
			select '/d/' || d.slug as path, e.created_at as at, d.set_aside_at, door_json(d.door_id) as door, door_json(fp.door_id) as follows_door, fp.set_aside_at as follows_set_aside
			from document d join edition e on e.id = d.edition_id join door dr on dr.id = d.door_id left join page fp on fp.id = dr.follows_page join door f on f.id = coalesce(fp.door_id, dr.id)
			where d.set_aside_at is null and f.position = 'open' and f.listed and e.condition not in ('refused', 'checking') order by e.created_at desc`,
		site()
	]);
	return [...pages, ...documents].filter((row) => isListed(visitor, thingOf(row, zone), now)).map(({ path, at }) => ({ path, at }));
}

/** sitemap.xml after sitemaps.org 0.9: at most 50,000 addresses in one file. */
export async function sitemap(): Promise<string> {
	const { IANUA_ORIGIN } = settings();
	const urls = (await listedAddresses())
		.slice(0, 50_000)
		.map(({ path, at }) => `\t<url><loc>${xml(IANUA_ORIGIN + path)}</loc><lastmod>${at.toISOString()}</lastmod></url>`);
	return `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${urls.join('\n')}\n</urlset>\n`;
}
