// Whom every document reaches today, in one pass over doors and people.
import type { Thing } from '#core/access/door';
import { spanOf, type Instant } from '#core/access/hours';
import { populationAt, reach, type Population, type Reached } from '#core/access/population';
import { sql } from '../db/client';
import { site } from '../site/site';
import { thingOf, type ThingRow } from './things';

/** All members with their memberships, as they stand at an instant. */
export async function populationNow(at: Instant = Date.now()): Promise<Population> {
	const [rows, { zone }] = await Promise.all([
		sql()<{ id: string; suspended: boolean; memberships: { group: string; from: string | null; until: string | null }[] | null }[]>`
			select p.id, p.suspended, m.list as memberships from person p left join (
				select person_id, jsonb_agg(jsonb_build_object('group', group_id, 'from', from_day, 'until', until_day)) as list from membership group by person_id
			) m on m.person_id = p.id where p.role = 'member'`,
		site()
	]);
	return populationAt(
		rows.map(({ id, suspended, memberships }) => ({
			id,
			suspended,
			memberships: (memberships ?? []).map((m) => ({ group: m.group, span: spanOf(m.from, m.until, zone) }))
		})),
		at
	);
}

/** Every document that is not set aside, with whom it reaches. */
export async function reachOfAll(at: Instant = Date.now()): Promise<{ documents: Map<string, Thing>; reached: Map<string, Reached>; population: Population }> {
	const [rows, population, { zone }] = await Promise.all([
		sql()<(ThingRow & { id: string })[]>`
			with admits as (
				select x.id, coalesce(g.list, '[]') as groups, coalesce(p.list, '[]') as people from door x
					left join (select door_id, jsonb_agg(group_id) as list from door_group group by door_id) g on g.door_id = x.id
					left join (select door_id, jsonb_agg(person_id) as list from door_person group by door_id) p on p.door_id = x.id
			), doors as (
				select d.id, jsonb_build_object('position', d.position, 'allMembers', d.all_members, 'listed', d.listed, 'from', d.from_bound, 'until', d.until_bound,
					'allow', jsonb_build_object('save', d.allow_save, 'print', d.allow_print), 'groups', a.groups, 'people', a.people, 'turnedAway', null, 'stamped', d.stamped) as door,
					d.follows_page
				from door d join admits a on a.id = d.id
			)
			select d.id, d.set_aside_at, x.door, f.door as follows_door, fp.set_aside_at as follows_set_aside
			from document d join doors x on x.id = d.door_id left join page fp on fp.id = x.follows_page left join doors f on f.id = fp.door_id
			where d.set_aside_at is null`,
		populationNow(at),
		site()
	]);
	const documents = new Map(rows.map((row) => [row.id, thingOf(row, zone)]));
	return { documents, population, reached: new Map([...documents].map(([id, thing]) => [id, reach(thing, population)])) };
}
