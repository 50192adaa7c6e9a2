// How far those who are known (members, keys’ holders) are with editions.
import { readSeconds } from '#core/reading/attention';
import type { Transaction } from './rows';

/** How far somebody known is with an edition: the row of `progress` that is named so. */
export interface Standing {
	readonly document: string;
	readonly edition: string;
	readonly reader: number;
}

/** Brings up to date how far those who are known (members, keys' holders) are with editions; null means all of them. */
export async function bringProgress(tx: Transaction, touched: readonly Standing[] | null): Promise<void> {
	if (touched && !touched.length) return;
	const wanted = touched
		? tx`join unnest(${touched.map((t) => t.document)}::uuid[], ${touched.map((t) => t.edition)}::uuid[], ${touched.map((t) => t.reader)}::int[]) as t (d, e, r)
			on t.d = s.document_id and t.e = s.edition_id and t.r = s.reader`
		: tx``;
	if (touched)
		await tx`delete from progress p using unnest(${touched.map((t) => t.document)}::uuid[], ${touched.map((t) => t.edition)}::uuid[], ${touched.map((t) => t.reader)}::int[]) as t (d, e, r)
			where t.d = p.document_id and t.e = p.edition_id and t.r = p.reader`;
	else await tx`truncate progress`;
	await tx`
		with sums as (select s.* from sum_reader s ${wanted} where s.person_id is not null or s.key_id is not null),
			pages as (
				select document_id, edition_id, reader, count(*) filter (where seconds >= ${readSeconds}) as pages_read, coalesce(max(page) filter (where seconds >= ${readSeconds}), 0) as furthest
				from (select document_id, edition_id, reader, page, sum(second) as seconds from sums, unnest(pages, page_seconds) as u (page, second) group by 1, 2, 3, 4) p group by 1, 2, 3)
		insert into progress select s.document_id, s.edition_id, s.reader, sum(openings), sum(saves), sum(printed), sum(seconds), coalesce(max(p.pages_read), 0), coalesce(max(p.furthest), 0),
			min(first_at), max(last_at)
		from sums s left join pages p on p.document_id = s.document_id and p.edition_id = s.edition_id and p.reader = s.reader group by 1, 2, 3`;
}
