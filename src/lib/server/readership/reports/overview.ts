// The report on the whole site.
import type { Added } from '#core/readership/days';
import type { Period } from '#core/readership/period';
import { siteAnswer } from '#core/readership/words';
import { sql } from '../../db/client';
import { piecesIn, readersOfEach, wholeSite } from '../sums/figures';
import { sumsForReport } from '../sums/keep';
import { type Most, type SourceFigures, type Report, whenOf, countsOf, sourcesOf } from './report';

export interface DocumentFigures {
	readonly slug: string;
	readonly title: string;
	readonly openings: number;
	readonly saves: number;
	readonly refusals: number;
	readonly seconds: number;
	readonly readers: number;
	/** Openings and saves of the days before. */
	readonly before: number;
}

/** The documents that were opened, saved or refused most, with what they had in the days before. */
async function documentsOf(period: Period, limit: number): Promise<{ items: DocumentFigures[]; opened: number }> {
	const s = sql();
	const rows = await s<(Omit<DocumentFigures, 'readers'> & { id: string })[]>`
		with now as (
			select document_id, sum(openings)::int as openings, sum(saves)::int as saves, sum(refusals)::int as refusals, sum(seconds::float8) as seconds
			from ${piecesIn(period)} join sum_figures using (span, day) where document_id <> ${wholeSite} group by 1
		), earlier as (
			select document_id, sum(openings + saves)::int as n from ${piecesIn(period.before)} join sum_figures using (span, day) where document_id <> ${wholeSite} group by 1
		)
		select d.id, d.slug, d.title, c.* from (
			select coalesce(now.document_id, earlier.document_id) as document_id, coalesce(openings, 0) as openings, coalesce(saves, 0) as saves, coalesce(refusals, 0) as refusals,
				coalesce(seconds, 0) as seconds, coalesce(n, 0) as before
			from now full join earlier on now.document_id = earlier.document_id) c join document d on d.id = c.document_id
		where c.openings + c.saves + c.refusals + c.before > 0 order by c.openings + c.saves desc, c.refusals desc, d.title`;
	const readers = await readersOfEach(
		rows.slice(0, limit).map((r) => r.id),
		period
	);
	return {
		items: rows.map(({ id, slug, title, openings, saves, refusals, seconds, before }) => ({
			...{ slug, title, openings, saves, refusals, seconds, before },
			readers: readers.get(id) ?? 0
		})),
		opened: rows.filter((r) => r.openings > 0).length
	};
}

export interface Overview extends Report, Omit<Added, 'figures'> {
	readonly documents: readonly DocumentFigures[];
	readonly more: number;
	/** What rose and what fell most against the days before, openings and saves together. */
	readonly rose: readonly DocumentFigures[];
	readonly fell: readonly DocumentFigures[];
	readonly sources: readonly SourceFigures[];
}

/** The whole site. At most so many documents and places are listed, or all. */
export async function overview(period: Period, most: { documents: Most; sources: Most } = { documents: 25, sources: 8 }): Promise<Overview> {
	const limit = most.documents ?? Infinity;
	const whole = await sumsForReport();
	const [counts, { items, opened }, sources] = await Promise.all([
		countsOf(wholeSite, period),
		documentsOf(period, limit),
		sourcesOf(wholeSite, period, most.sources)
	]);
	const change = (d: DocumentFigures) => d.openings + d.saves - d.before;
	const moved = [...items].sort((a, b) => change(b) - change(a));
	return {
		period,
		whole,
		answer: siteAnswer(counts.figures, counts.before, opened, whenOf(period)),
		...counts,
		documents: items.slice(0, limit),
		more: Math.max(0, items.length - limit),
		rose: moved.filter((d) => change(d) > 0).slice(0, 4),
		fell: moved
			.filter((d) => change(d) < 0)
			.slice(-4)
			.reverse(),
		sources
	};
}
