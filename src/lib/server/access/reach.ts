// Whom every document reaches today, in one pass over doors and people.
import type { DoorFields, Guarded } from '#core/access/door';
import { spanOf, type Instant, type Span } from '#core/access/hours';
import { populationAt, reach, type Member, type Population, type Reached } from '#core/access/population';
import { sql } from '../db/client';
import { site } from '../site/site';
import { guardedOf, type GuardedRow } from './doors';

/** All members with their memberships. */
export async function allMembersOf(): Promise<Member[]> {
	const [rows, { zone }] = await Promise.all([
		sql()<{ id: string; suspended: boolean; memberships: { group: string; from: string | null; until: string | null }[] | null }[]>`
			select p.id, p.suspended, m.list as memberships from person p left join (
				select person_id, jsonb_agg(jsonb_build_object('group', group_id, 'from', from_day, 'until', until_day)) as list from membership group by person_id
			) m on m.person_id = p.id where p.role = 'member'`,
		site()
	]);
	// days are few and people many: each bound is reckoned once
	const spans = new Map<string, Span>();
	const span = (from: string | null, until: string | null) => {
		const key = `${from} ${until}`;
		let made = spans.get(key);
		if (!made) spans.set(key, (made = spanOf(from, until, zone)));
		return made;
	};
	return rows.map(({ id, suspended, memberships }) => ({
		id,
		suspended,
		memberships: (memberships ?? []).map((m) => ({ group: m.group, span: span(m.from, m.until) }))
	}));
}

/** All members as they stand at an instant. */
export const populationNow = async (at: Instant = Date.now()): Promise<Population> => populationAt(await allMembersOf(), at);

/** A door as it would be: what of it changes, and the page that would be followed. */
export interface AsIf {
	readonly door: Partial<DoorFields>;
	/** Undefined where that stays. */
	readonly follows?: Guarded['follows'];
}

/** Documents that are not gone and pages that are not set aside, as the decision sees them, by id (no two of them share one). */
export async function allGuarded(kinds: {
	documents?: 'all' | readonly string[];
	pages?: 'all' | readonly string[];
	/** Pages that count as published, whether they are or not. */
	asPublished?: readonly string[];
	/** How the doors of the documents would be. */
	asIf?: AsIf | null;
}): Promise<Map<string, Guarded>> {
	const s = sql();
	const some = (table: 'document' | 'page', ids: 'all' | readonly string[] = []) =>
		s`select id, door_id, set_aside_at, ${table === 'document'} as document from ${s(table)} where ${table === 'document' ? s`gone_at is null` : s`set_aside_at is null`} and ${ids === 'all' ? s`true` : ids.length ? s`id in ${s(ids)}` : s`false`}`;
	const [rows, { zone }] = await Promise.all([
		s<(GuardedRow & { id: string; document: boolean })[]>`
			with admits as (
				select x.id, coalesce(g.list, '[]') as groups, coalesce(p.list, '[]') as people from door x
					left join (select door_id, jsonb_agg(group_id) as list from door_group group by door_id) g on g.door_id = x.id
					left join (select door_id, jsonb_agg(person_id) as list from door_person group by door_id) p on p.door_id = x.id
			), doors as (
				select d.id, jsonb_build_object('position', d.position, 'allMembers', d.all_members, 'listed', d.listed, 'announced', d.announced, 'from', d.from_bound, 'until', d.until_bound,
					'allow', jsonb_build_object('save', d.allow_save, 'print', d.allow_print), 'groups', a.groups, 'people', a.people, 'turnedAway', null, 'stamped', d.stamped) as door,
					d.follows_page
				from door d join admits a on a.id = d.id
			)
			select t.id, t.document, t.set_aside_at, x.door, f.door as follows_door, fp.set_aside_at is not null as follows_set_aside,
				coalesce(fp.published_id is null and not fp.id = any(${[...(kinds.asPublished ?? [])]}::uuid[]), false) as follows_unpublished
			from (${some('document', kinds.documents)} union all ${some('page', kinds.pages)}) t join doors x on x.id = t.door_id left join page fp on fp.id = x.follows_page left join doors f on f.id = fp.door_id`,
		site()
	]);
	const asIf = (row: (typeof rows)[number]): Guarded => {
		if (!kinds.asIf || !row.document) return guardedOf(row, zone);
		const thing = guardedOf({ ...row, door: { ...row.door, ...kinds.asIf.door } }, zone);
		return kinds.asIf.follows === undefined ? thing : { ...thing, follows: kinds.asIf.follows };
	};
	return new Map(rows.map((row) => [row.id, asIf(row)]));
}

/** Every document that is not set aside, with whom it reaches. */
export async function reachOfAll(
	at: Instant = Date.now()
): Promise<{ documents: Map<string, Guarded>; reached: Map<string, Reached>; population: Population }> {
	const [documents, population] = await Promise.all([allGuarded({ documents: 'all' }), populationNow(at)]);
	for (const [id, thing] of documents) if (thing.setAside) documents.delete(id);
	return { documents, population, reached: new Map([...documents].map(([id, thing]) => [id, reach(thing, population)])) };
}
