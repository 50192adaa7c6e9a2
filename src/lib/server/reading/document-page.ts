// What the document's page says beyond the document itself: what is in it, where words stand in it, what goes with it.
import type { Facts, OutlineLine } from '#core/intake/condition';
import { coverMark, type Cover } from '#core/documents/cover';
import type { PageSize } from '#core/intake/paper';
import type { Language } from '#core/words/words';
import { dayWords } from '#core/access/reach';
import { untilTurn } from '../access/hours';
import { readableBy } from '../access/readable';
import { Cache } from '../db/cache';
import { sql } from '../db/client';
import { theRow } from '../db/rows';
import { hitsOf, type Hit } from '../documents/find';
import { findLane } from '../lanes';
import type { Caller } from '../people/who';
import { pagesSaid } from '../placing/catalogue';
import type { SeenCover } from '../placing/page-view';
import { site } from '../site/site';
import type { Resolved } from './resolve';

/** So much of an outline stands on the page, in lines. */
const mostContents = 40;

export interface InsideFacts {
	readonly outline: readonly OutlineLine[];
	readonly attachments: readonly string[];
	readonly tagged: boolean;
	readonly text: Facts['text'];
}

const inside = new Cache<InsideFacts>({ most: 2000 });

/** What the check found in the edition. */
export const insideFacts = ({ edition: { id } }: Resolved): Promise<InsideFacts> =>
	inside.get(id, async () => ({ value: await readInside(id), until: Infinity }));

async function readInside(edition: string): Promise<InsideFacts> {
	const row = theRow(
		await sql()<{ outline: OutlineLine[]; attachments: { name: string }[]; tagged: boolean | null; text: Facts['text'] | null }[]>`
			select coalesce(facts->'outline', '[]') as outline, coalesce(facts->'attachments', '[]') as attachments, (facts->>'tagged')::boolean as tagged, facts->>'text' as text
			from edition where id = ${edition}`
	);
	const lines = row.outline.filter((line) => line.page !== null && line.depth < 2);
	return {
		outline: (lines.length > mostContents ? lines.filter((line) => line.depth === 0) : lines).slice(0, mostContents),
		attachments: row.attachments.map(({ name }) => name),
		tagged: row.tagged ?? false,
		text: row.text ?? 'yes'
	};
}

/** Where words stand in the document, for somebody at a place: the first eight pages. */
export async function foundInside(found: Resolved, q: string, place: string): Promise<readonly Hit[]> {
	if (!q.trim()) return [];
	return (await findLane.run(place, () => hitsOf(q, [found.id], 8))).get(found.id) ?? [];
}

export interface RelatedDocument {
	readonly slug: string;
	readonly title: string;
	readonly facts: string;
	readonly language: string | null;
	readonly cover: SeenCover;
}

/** Of visitors, who all see the same. */
const related = new Cache<readonly RelatedDocument[]>({ most: 2000, within: 0 });

/** What goes with a document, of what lists name to the caller: most topics in common first, then its folder's newest; at most five. */
export function relatedTo(found: Resolved, caller: Caller, language: Language): Promise<readonly RelatedDocument[]> {
	const read = () => readRelated(found, caller, language);
	return caller.who.kind === 'visitor' && !caller.trial ? related.get(`${found.id} ${language}`, () => untilTurn(read)) : read();
}

async function readRelated(found: Resolved, caller: Caller, language: Language): Promise<RelatedDocument[]> {
	const [rows, { zone }] = await Promise.all([
		sql()<
			{
				slug: string;
				title: string;
				pages: number;
				language: string | null;
				cover: Cover | null;
				cover_alt: string;
				number: number;
				size: PageSize | null;
				edition_at: Date;
			}[]
		>`
			with this as (select topics, folder from document where id = ${found.id})
			select d.slug, d.title, e.pages, e.language, d.cover, d.cover_alt, e.number, e.facts->'sizes'->0 as size, e.created_at as edition_at
			from this, document d join edition e on e.id = d.edition_id
			where (d.id in (${(await readableBy(caller)).ids})) is true and d.id <> ${found.id} and e.pages > 0 and (d.topics && this.topics or (d.folder = this.folder and d.folder <> ''))
			order by cardinality(array(select unnest(d.topics) intersect select unnest(this.topics))) desc, (d.folder = this.folder) desc, e.created_at desc limit 5`,
		site()
	]);
	return rows.map((row) => ({
		slug: row.slug,
		title: row.title,
		facts: `${pagesSaid(row.pages, language)}, ${dayWords(row.edition_at.getTime(), zone, language)}`,
		language: row.language,
		cover: {
			slug: row.slug,
			query: `?e=${row.number}-${coverMark(row.cover)}`,
			alt: row.cover_alt,
			ratio: row.cover === null && row.size ? row.size.height / row.size.width : null
		}
	}));
}
