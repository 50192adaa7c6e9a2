// What came out: editions that somebody besides staff may read, since when and for whom. Looked at every minute; a door that comes to admit
// more people makes news for those who did not know.
import type postgres from 'postgres';
import { sql } from '../db/client';

/** Brings `news` up to now. What was out before anything was ever looked at came out when its edition was made. */
export async function noticeNews(now: number): Promise<void> {
	const at = new Date(now);
	await sql()`
		with standing as (
			select e.id as edition_id, d.id as document_id, e.created_at, t.set_position = 'open' and t.listed as everyone, t.all_members,
				array(select group_id from door_group x where x.door_id = t.door_id order by 1) as groups,
				array(select person_id from door_person x where x.door_id = t.door_id order by 1) as people
			from thing_in_force t join document d on d.id = t.id join edition e on e.id = d.edition_id
			where t.kind = 'document' and position_at(t.set_position, t.from_at, t.until_at, ${at}) <> 'shut' and e.condition not in ('refused', 'checking')
		), known as (select exists (select from news) as any)
		insert into news as n (edition_id, document_id, at, wider_at, everyone, all_members, groups, people)
		select s.edition_id, s.document_id, case when known.any then ${at} else s.created_at end, case when known.any then ${at} else s.created_at end,
			s.everyone, s.all_members, s.groups, s.people
		-- what stands there as it is, is not touched: a row that is led to a conflict is locked, which writes
		from known, standing s left join news o on o.edition_id = s.edition_id
		where o.edition_id is null or (o.everyone, o.all_members, o.groups, o.people) is distinct from (s.everyone, s.all_members, s.groups, s.people)
		on conflict (edition_id) do update set
			wider_at = case when (excluded.everyone and not n.everyone) or (excluded.all_members and not n.all_members)
				or not excluded.groups <@ n.groups or not excluded.people <@ n.people then ${at} else n.wider_at end,
			everyone = excluded.everyone, all_members = excluded.all_members, groups = excluded.groups, people = excluded.people`;
}

export interface Out {
	readonly edition: string;
	readonly document: string;
	readonly slug: string;
	readonly title: string;
	readonly description: string;
	readonly folder: string;
	readonly pages: number;
	readonly at: Date;
	/** Of a document of which an earlier edition had come out. */
	readonly isEdition: boolean;
}

/** What of the news lists name to a reader, the newest first, at most `limit`; `among` narrows it on `n` (news) and `d` (document). */
export async function newsAmong(readable: postgres.Fragment, among: postgres.Fragment, limit: number): Promise<Out[]> {
	return sql()<Out[]>`
		select n.edition_id as edition, d.id as document, d.slug, d.title, d.description, d.folder, e.pages, n.at,
			exists (select from news x where x.document_id = n.document_id and x.at < n.at) as "isEdition"
		from news n join document d on d.id = n.document_id and d.edition_id = n.edition_id join edition e on e.id = n.edition_id
		where ${among} and (d.id in (${readable})) is true order by n.at desc, n.edition_id desc limit ${limit}`;
}
