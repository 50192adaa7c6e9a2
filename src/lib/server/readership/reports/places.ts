// Where documents are opened from: the placements of the site and other websites.
import type { Period } from '#core/readership/period';
import { sql } from '../../db/client';
import { piecesIn, wholeSite } from '../sums/figures';
import { sumsForReport } from '../sums/keep';
import type { PlaceFigures } from '../contract';
import type { Lines } from './report';

/** What became of each placement and on each other website: shown → pressed → opened → saved. */
export async function places(period: Period): Promise<Lines<PlaceFigures>> {
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
		where p.id is not null or c.outside is not null order by c.shown + c.looks + c.openings + c.saves desc limit 300`;
	return { period, whole, items };
}
