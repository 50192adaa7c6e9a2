// The report on one reader: a person, or whoever holds a key.
import { noFigures, type Figures } from '#core/readership/counting';
import { series, type Period } from '#core/readership/period';
import { memberAnswer } from '#core/readership/words';
import { sql } from '../../db/client';
import { theRow } from '../../db/rows';
import { sumsForReport } from '../sums/keep';
import { type Report, whenOf } from './report';

export interface ReadDocument {
	readonly slug: string;
	readonly title: string;
	readonly openings: number;
	readonly saves: number;
	readonly printed: number;
	readonly seconds: number;
	readonly pagesRead: number;
	readonly pages: number;
	readonly first: string;
	readonly last: string;
}

export interface OneReader extends Omit<Report, 'before'> {
	readonly name: string;
	readonly documents: readonly ReadDocument[];
}

/** What was done with a document over the whole period. */
interface OfDocument extends Omit<ReadDocument, 'first' | 'last'> {
	readonly day: null;
	readonly first: Date;
	readonly last: Date;
}

/** What was done on a day with all documents. */
type OfDay = { readonly day: string; readonly openings: number; readonly saves: number } & {
	readonly [Key in Exclude<keyof OfDocument, 'day' | 'openings' | 'saves'>]: null;
};

/** What one member did, or what was done with one key. Null where there is no such. */
export async function readerReport(reader: { readonly person: string } | { readonly key: string }, period: Period): Promise<OneReader | null> {
	const whole = await sumsForReport();
	const s = sql();
	const person = 'person' in reader ? reader.person : null;
	const key = 'key' in reader ? reader.key : null;
	const [known] = person
		? await s<{ name: string }[]>`select name from person where id = ${person}`
		: await s<{ name: string }[]>`select label as name from door_key where id = ${key}`;
	if (!known) return null;
	const own = person ? s`person_id = ${person}` : s`key_id = ${key}`;
	// what they did is looked at once, and added up both by document and by day
	const [both, refused] = await Promise.all([
		s<(OfDocument | OfDay)[]>`
			with own as (select * from sum_reader where ${own} and day between ${period.before.first} and ${period.last}),
				c as (
					select document_id, array_agg(distinct reader) as readers, sum(openings)::int as openings, sum(saves)::int as saves, sum(printed)::int as printed, sum(seconds)::float8 as seconds,
						min(first_at) as first, max(last_at) as last from own where day >= ${period.first} group by 1
				)
			select null as day, d.slug, d.title, c.openings, c.saves, c.printed, c.seconds, e.pages, c.first, c.last,
				coalesce((select max(p.pages_read) from progress p where p.document_id = d.id and p.edition_id = e.id and p.reader = any(c.readers)), 0)::int as "pagesRead"
			from c join document d on d.id = c.document_id join edition e on e.id = d.edition_id
			union all select day::text, null, null, sum(openings)::int, sum(saves)::int, null, null, null, null, null, null from own group by day
			order by last desc nulls last`,
		s<{ n: number }[]>`select coalesce(sum(times), 0)::int as n from sum_refused where ${own} and day between ${period.first} and ${period.last}`
	]);
	const days = both.filter((row) => row.day !== null);
	const rows = both.filter((row) => row.day === null);
	const total = (key: 'openings' | 'saves' | 'printed' | 'seconds') => rows.reduce((sum, r) => sum + r[key], 0);
	const figures: Figures = {
		...noFigures,
		openings: total('openings'),
		saves: total('saves'),
		printed: total('printed'),
		seconds: total('seconds'),
		refusals: theRow(refused).n,
		readers: rows.length ? 1 : 0
	};
	return {
		period,
		whole,
		name: known.name,
		answer: memberAnswer(known.name, figures, rows.length, whenOf(period)),
		figures,
		bars: series(days, period),
		documents: rows.map(({ day: _, ...r }) => ({ ...r, first: r.first.toISOString(), last: r.last.toISOString() }))
	};
}
