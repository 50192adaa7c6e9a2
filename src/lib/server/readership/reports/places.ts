// Where documents are opened from: the placements of the site and other websites.
import { dayOf } from '#core/access/hours';
import type { DoorChange } from '#core/access/door';
import { mayFrame } from '#core/placing/outside';
import { periodOf, type Period } from '#core/readership/period';
import { sql } from '../../db/client';
import { site } from '../../site/site';
import { piecesIn, wholeSite } from '../sums/figures';
import { sumsForReport } from '../sums/keep';
import type { PlaceFigures } from '../contract';
import type { Elsewhere } from '../elsewhere';
import type { Lines, Most } from './report';

/** What became of each placement and on each other website: shown → pressed → opened → saved. */
export async function places(period: Period, most: Most = 300): Promise<Lines<PlaceFigures>> {
	const whole = await sumsForReport();
	const items = await sql()<PlaceFigures[]>`
		select case when c.outside is not null then 'outside' else 'placement' end as kind, coalesce(p.path, c.outside) as "where", coalesce(p.draft_title, c.outside) as title, d.slug, d.title as document,
			(select form from placement pl where pl.id = c.placement_id limit 1) as form, c.shown, greatest(c.looks, c.openings, c.saves) as pressed, c.openings, c.saves
		from (select page_id, placement_id, outside, document_id, sum(shown)::int as shown, sum(looks)::int as looks, sum(openings)::int as openings, sum(saves)::int as saves
			from ${piecesIn(period)} cross join lateral (
				-- offset 0: one after the other by the index, however many rows there seem to be
				select * from sum_source s where s.span = pieces.span and s.day = pieces.day and (page_id is not null or outside is not null) and document_id <> ${wholeSite} offset 0) s
			group by 1, 2, 3, 4) c
			join document d on d.id = c.document_id left join page p on p.id = c.page_id
		where p.id is not null or c.outside is not null order by c.shown + c.looks + c.openings + c.saves desc, d.slug, 2, c.placement_id limit ${most}`;
	return { period, whole, items };
}

/** Days for which it is told on which other websites a document was. */
export const elsewhereDays = 30;

/** Other websites on which readers met documents lately, by their slugs: those with the most openings first. */
export async function lastMetElsewhere(documents: readonly string[], period: Period): Promise<Elsewhere[]> {
	await sumsForReport();
	return sql()<Elsewhere[]>`
		select d.slug as document, d.title as "documentTitle", s.outside as site, sum(s.openings)::int as openings, sum(greatest(s.looks, s.shown, s.openings, s.saves))::int as met
		from document d cross join ${piecesIn(period)} join sum_source s on s.span = pieces.span and s.day = pieces.day and s.document_id = d.id
		where d.slug = any(${[...documents]}) and s.outside is not null
		group by 1, 2, 3 having sum(greatest(s.looks, s.shown, s.openings, s.saves)) > 0 order by 4 desc, 5 desc, 1, 3 limit 100`;
}

/** Which of some documents visitors come to now, and would not any more with another door, or set aside. */
async function lostToVisitors(documents: readonly string[], door: DoorChange | null): Promise<string[]> {
	if (door && (door.position === undefined || door.position === 'open' || door.position === 'ajar')) return [];
	const rows = await sql()<{ slug: string }[]>`
		select d.slug from document d join thing_in_force t on t.id = d.id and t.kind = 'document'
		where d.slug = any(${[...documents]}) and position_at(t.set_position, t.from_at, t.until_at, now()) in ('open', 'ajar')`;
	return rows.map((row) => row.slug);
}

/**
 * Other websites that show documents in their pages (they may frame them, and readers came from there lately) whose readers a change would turn
 * away: another door, or null for setting aside. Who only links here shows nothing.
 */
export async function lostElsewhere(documents: readonly string[], door: DoorChange | null): Promise<Elsewhere[]> {
	const { framers = [] } = await site();
	const lost = framers.length ? await lostToVisitors(documents, door) : [];
	const met = lost.length ? await lastMetElsewhere(lost, await lately()) : [];
	return met.filter((one) => mayFrame(`https://${one.site}`, framers));
}

/** The time that is meant by lately. */
export const lately = async (): Promise<Period> =>
	periodOf({ days: String(elsewhereDays), from: null, until: null, by: null }, dayOf(Date.now(), (await site()).zone));
