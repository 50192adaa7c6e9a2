// Where documents are placed, for other capabilities to ask.
import type postgres from 'postgres';
import { sql } from '../db/client';
import { site } from '../site/site';

/** Whether a page of a document is placed as a cover somewhere. */
export async function isPlacedAsCover(documentId: string, page: number): Promise<boolean> {
	const [row] = await sql()`select 1 from placement where document_id = ${documentId} and cover_page = ${page} limit 1`;
	return row !== undefined;
}

/** SQL: whether the list `l` (listing) has the document `d`, apart from what is picked for it by hand: that is a placement. */
export const lists = (): postgres.Fragment => sql()`(l.everything or d.folder = any(l.folders) or d.topics && l.topics
	or l.fields <> '{}' and exists (select 1 from jsonb_each(l.fields) f where f.value ? (d.fields->>f.key)))`;

/**
 * SQL: whether any published list has the document `d`, apart from what is picked for it by hand. The same as `lists` of any of them, with what
 * they have taken together first: for very many documents at once.
 */
export const listedAnywhere = (): postgres.Fragment => sql()`((select coalesce(bool_or(everything), false) from listing where published)
	or d.folder = any((select coalesce(array_agg(x), '{}') from listing, unnest(folders) x where published)::text[])
	or d.topics && (select coalesce(array_agg(x), '{}') from listing, unnest(topics) x where published)::text[]
	or exists (select 1 from (select fields from listing where published and fields <> '{}' offset 0) l, jsonb_each(l.fields) f where f.value ? (d.fields->>f.key)))`;

/** Takes a document that is gone for good off every page's list of what stands there. */
export async function dropPlacements(documentId: string): Promise<void> {
	await sql()`delete from placement where document_id = ${documentId}`;
}

/** A place where a document is met on a published page. */
export interface Place {
	readonly document: string;
	readonly documentTitle: string;
	/** Path and title of the page. */
	readonly page: string;
	readonly pageTitle: string;
	/** Whether it is the front page of the site. */
	readonly front: boolean;
	readonly placement: string;
	readonly form: string;
	/** Who of those who come there would be turned away, where a door is changed: in words, and how many of today. */
	readonly audience?: { readonly words: string; readonly people: number; readonly of: number; readonly anyone: boolean };
}

/** Where some documents, by their addresses, stand on published pages: the front page first. */
export async function placesOf(slugs: readonly string[]): Promise<Place[]> {
	if (!slugs.length) return [];
	const s = sql();
	const { front } = await site();
	const rows = await s<Place[]>`
		select d.slug as document, d.title as "documentTitle", g.path as page, g.title as "pageTitle", (g.path = '/' or g.path = ${front ?? ''}) as front, p.id as placement, p.form
		from placement p join document d on d.id = p.document_id join page g on g.id = p.page_id
		where p.published and p.form <> 'list' and g.set_aside_at is null and d.slug in ${s(slugs)} order by front desc, g.path, d.title, p.id`;
	return [...rows];
}
