// What a reader's own page shows: what is new for them, where they can go on, what changed since they read it, and what each group opens.
import { isThrough } from '#core/readership/counting';
import { readershipOf } from '#core/readership/settings';
import { groupsAt } from '#core/access/decide';
import { readableBy } from '../access/readable';
import { sql } from '../db/client';
import { instantOf, type Caller } from '../people/who';
import { receiptsDue } from '../reading/receipts';
import { site } from '../site/site';
import { newsAmong, type Out } from './out';

const dayMs = 86_400_000;
/** Days for which something counts as new, and for which somebody can go on. */
const [newFor, goOnFor] = [60, 180];
const most = 6;

interface Read {
	readonly slug: string;
	readonly title: string;
	readonly pages: number;
	readonly readAt: Date;
}

export interface OwnPage {
	readonly fresh: readonly Out[];
	/** With the page at which they left it. */
	readonly goOn: readonly (Read & { readonly page: number })[];
	readonly changed: readonly Read[];
	/** What asks them for a receipt that they have not given. */
	readonly receipts: readonly { readonly slug: string; readonly title: string; readonly pages: number }[];
	/** What is kept for each of their groups, by its name. */
	readonly groups: readonly {
		readonly name: string;
		readonly documents: readonly { readonly slug: string; readonly title: string; readonly pages: number }[];
	}[];
}

interface ReadRow extends Read {
	changed: boolean;
	page: number | null;
	pages_read: number;
}

/** All of it for a person, of what lists name to them. What they read without being told apart (their browser asked for that) is not known. */
export async function ownPage(caller: Caller, person: string): Promise<OwnPage> {
	const s = sql();
	const at = instantOf(caller);
	const { ids: readable } = await readableBy(caller);
	const groups = groupsAt(caller.who, at);
	const [fresh, read, kept, { readership }, receipts] = await Promise.all([
		newsAmong(
			readable,
			s`n.at > ${new Date(at - newFor * dayMs)} and not exists (
				select from ledger l where l.person_id = ${person} and l.document_id = d.id and l.kind in ('opened', 'saved') and l.at >= n.at)`,
			most
		),
		s<ReadRow[]>`
			with mine as (
				select distinct on (document_id) document_id, edition_id, at from ledger
				where person_id = ${person} and kind in ('opened', 'read') and at > ${new Date(at - goOnFor * dayMs)} order by document_id, at desc
			)
			select d.slug, d.title, e.pages, m.at as "readAt", m.edition_id <> d.edition_id as changed,
				(select (l.attention->-1->>'page')::int from ledger l where l.person_id = ${person} and l.document_id = d.id and l.kind = 'read' and l.edition_id = d.edition_id order by l.at desc limit 1) as page,
				coalesce((select p.pages_read from progress p join reader r on r.number = p.reader where p.document_id = d.id and p.edition_id = d.edition_id and r.name = ${`p:${person}`}), 0)::int as pages_read
			from mine m join document d on d.id = m.document_id join edition e on e.id = d.edition_id
			where (d.id in (${readable})) is true order by m.at desc limit 60`,
		groups.length
			? s<{ name: string; slug: string; title: string; pages: number }[]>`
				select g.name, d.slug, d.title, e.pages from member_group g join door_group x on x.group_id = g.id join thing_in_force t on t.door_id = x.door_id and t.kind = 'document'
					join document d on d.id = t.id join edition e on e.id = d.edition_id
				where g.id = any(${groups}::uuid[]) and t.set_position = 'keyed' and (d.id in (${readable})) is true order by g.name, d.created_at desc limit 200`
			: [],
		site(),
		caller.person?.role === 'member' ? receiptsDue(person, readable) : []
	]);
	const { through } = readershipOf(readership);
	const names = [...new Set(kept.map((row) => row.name))];
	return {
		fresh,
		receipts,
		goOn: read
			.filter((row) => !row.changed && row.pages > 1 && !isThrough(row.pages_read, row.pages, through))
			.slice(0, most)
			.map(({ slug, title, pages, readAt, page }) => ({ slug, title, pages, readAt, page: page ?? 1 })),
		changed: read
			.filter((row) => row.changed)
			.slice(0, most)
			.map(({ slug, title, pages, readAt }) => ({ slug, title, pages, readAt })),
		groups: names.map((name) => ({ name, documents: kept.filter((row) => row.name === name).map(({ slug, title, pages }) => ({ slug, title, pages })) }))
	};
}
