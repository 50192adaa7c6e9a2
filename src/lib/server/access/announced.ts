// What is announced: that a keyed thing is there, and for whom it is kept, told to everyone (model.md, "Announced").
import type postgres from 'postgres';
import type { Guarded } from '#core/access/door';
import { keptForWords } from '#core/access/turned-away';
import { doorInForce, isAnnounced } from '#core/access/standing';
import type { Instant } from '#core/access/hours';
import type { Language } from '#core/words/words';
import { Cache } from '../db/cache';
import { sql } from '../db/client';
import { theRow } from '../db/rows';
import type { Caller } from '../people/who';
import { idsUntilTurn } from './readable';

/** For whom a thing is kept, in words for everyone; null where it is not announced at that instant. */
export async function announcedFor(thing: Guarded, at: Instant, language: Language): Promise<string | null> {
	if (!isAnnounced(thing, at)) return null;
	const { allMembers, groups, people } = doorInForce(thing);
	const { names } = theRow(
		await sql()<{ names: string[] }[]>`select coalesce(array_agg(name order by name), '{}') as names from member_group where id = any(${[...groups]}::uuid[])`
	);
	return keptForWords({ allMembers, groups: names, people: people.length }, language);
}

/** A document that is announced to somebody who may not read it. */
export interface Announced {
	readonly slug: string;
	readonly title: string;
	readonly description: string;
	/** For whom it is kept. */
	readonly who: string;
}

interface Row {
	slug: string;
	title: string;
	description: string;
	all_members: boolean;
	groups: string[];
	people: number;
}

const announcedAt = (at: Instant): postgres.Fragment => sql()`select a.id from announced_at(${new Date(at)}) as a (id)`;
/** What is announced now, as an array of ids. */
const cache = new Cache<string>({ most: 1, within: 0 });
const announcedNow = (): Promise<string> => cache.get('ids', () => idsUntilTurn(announcedAt));

/**
 * Documents announced to a caller who may not read them, by their titles, at most `limit`. `among` narrows them on `d` (document); `reads` is
 * SQL of the ids that the caller may read: those stand in lists as they are.
 */
export async function announcedDocuments(
	{ among, reads, caller, limit }: { among: postgres.Fragment; reads: postgres.Fragment; caller: Caller; limit: number },
	language: Language
): Promise<Announced[]> {
	const s = sql();
	const ids = caller.trial ? announcedAt(caller.trial.at) : s`select unnest(${await announcedNow()}::uuid[]) as id`;
	// few are announced: what else is asked of them is asked of those alone
	const rows = await s<Row[]>`
		with announced as materialized (${ids}),
			fits as materialized (select d.* from document d where d.id in (select id from announced) and ${among})
		select d.slug, d.title, d.description, t.all_members,
			array(select g.name from door_group x join member_group g on g.id = x.group_id where x.door_id = t.door_id order by g.name) as groups,
			(select count(*)::int from door_person x where x.door_id = t.door_id) as people
		from fits d join thing_in_force t on t.id = d.id and t.kind = 'document'
		where not d.id in (${reads}) order by lower(d.title), d.id limit ${limit}`;
	return rows.map(({ slug, title, description, all_members: allMembers, groups, people }) => ({
		slug,
		title,
		description,
		who: keptForWords({ allMembers, groups, people }, language)
	}));
}
