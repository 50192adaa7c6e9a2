// The tables of a report as a program or a spreadsheet takes them: every line, fixed names with their units, and for which time they are. CSV (RFC 4180) or JSON.
import type { RequestEvent } from '@sveltejs/kit';
import Papa from 'papaparse';
import type { Added } from '#core/readership/days';
import type { Bar, Period } from '#core/readership/period';
import { answer } from '../../http/api';
import { site } from '../../site/site';
import type { PlaceFigures, Refusals, reportTables } from '../contract';
import type { PageAttention, PersonFigures, RollLine } from './document';
import type { DocumentFigures } from './overview';
import type { ReadDocument } from './reader';
import type { SourceFigures } from './report';

type Cell = string | number | boolean | null;
interface Table {
	readonly columns: readonly string[];
	readonly rows: readonly Readonly<Record<string, Cell>>[];
}

/** A table whose columns are named, each with what stands in it of an item. */
const tableOf =
	<T>(cells: Readonly<Record<string, (item: T) => Cell>>) =>
	(items: readonly T[]): Table => ({
		columns: Object.keys(cells),
		rows: items.map((item) => Object.fromEntries(Object.entries(cells).map(([name, of]) => [name, of(item)])))
	});

const pages = tableOf<PageAttention>({
	page: (a) => a.page,
	read_seconds: (a) => Math.round(a.seconds * 10) / 10,
	readers: (a) => a.readers,
	stops: (a) => a.stops
});
const hours = tableOf<{ weekday: number; hour: number; n: number }>({ weekday: (h) => h.weekday, hour: (h) => h.hour, requests: (h) => h.n });

/** The tables of reports. A column’s name says its unit; a document is its slug. */
export const tables = {
	documents: tableOf<DocumentFigures>({
		document: (d) => d.slug,
		title: (d) => d.title,
		openings: (d) => d.openings,
		saves: (d) => d.saves,
		readers: (d) => d.readers,
		read_seconds: (d) => Math.round(d.seconds),
		refusals: (d) => d.refusals,
		requests_before: (d) => d.before
	}),
	days: tableOf<Bar>({ first_day: (b) => b.day, openings: (b) => b.openings, saves: (b) => b.saves, requests_before: (b) => b.before }),
	/** Days of the week as ISO 8601 counts them, from Monday 1. */
	hours: (week: Added['week']) => hours(week.flatMap((day, i) => day.map((n, hour) => ({ weekday: i + 1, hour, n })))),
	sources: tableOf<SourceFigures>({ source: (s) => s.kind, name: (s) => s.name, page: (s) => s.page, openings: (s) => s.openings, saves: (s) => s.saves }),
	/** Of so many pages, those on which nobody was too. */
	pages: (attention: readonly PageAttention[], count: number) => {
		const known = new Map(attention.map((a) => [a.page, a]));
		return pages(Array.from({ length: count }, (_, i) => known.get(i + 1) ?? { page: i + 1, seconds: 0, readers: 0, stops: 0 }));
	},
	people: tableOf<PersonFigures>({
		name: (p) => p.name,
		email: (p) => p.email,
		openings: (p) => p.openings,
		saves: (p) => p.saves,
		prints: (p) => p.printed,
		read_seconds: (p) => Math.round(p.seconds),
		pages_read: (p) => p.pagesRead,
		furthest_page: (p) => p.furthest,
		first_at: (p) => p.first,
		last_at: (p) => p.last,
		came_by: (p) => p.from
	}),
	roll: tableOf<RollLine>({
		name: (r) => r.name,
		email: (r) => r.email,
		groups: (r) => r.groups.map((g) => g.slug).join('; '),
		standing: (r) => r.standing,
		opened: (r) => r.opened,
		read_through: (r) => r.through,
		receipt_at: (r) => r.receipt,
		last_at: (r) => r.last,
		reminded_at: (r) => r.reminded
	}),
	read: tableOf<ReadDocument>({
		document: (d) => d.slug,
		title: (d) => d.title,
		openings: (d) => d.openings,
		saves: (d) => d.saves,
		prints: (d) => d.printed,
		read_seconds: (d) => Math.round(d.seconds),
		pages_read: (d) => d.pagesRead,
		pages: (d) => d.pages,
		first_at: (d) => d.first,
		last_at: (d) => d.last
	}),
	places: tableOf<PlaceFigures>({
		place: (p) => p.kind,
		where: (p) => p.where,
		document: (p) => p.slug,
		title: (p) => p.document,
		form: (p) => p.form,
		shown: (p) => p.shown,
		pressed: (p) => p.pressed,
		openings: (p) => p.openings,
		saves: (p) => p.saves
	}),
	refusals: tableOf<Refusals>({
		document: (r) => r.slug,
		title: (r) => r.title,
		reason: (r) => r.reason,
		page: (r) => r.page,
		times: (r) => r.times,
		people: (r) => r.people.join('; '),
		nameless: (r) => r.nameless,
		last_at: (r) => r.last,
		dead_end: (r) => r.deadEnd
	})
};

/** Whether a table is asked for, which has all its lines, and not the report. */
export const asksForTable = ({ searchParams }: URL): boolean => searchParams.get('format') === 'csv' || searchParams.has('table');

/**
 * What a report answers: the whole of it as JSON; with `table` one of its tables, with `format=csv` as CSV (the first of them where none is named). `mark`
 * puts the mark before CSV by which spreadsheets know UTF-8. `own` are the tables that this report has.
 */
export async function reportAnswer<Report extends keyof typeof reportTables>(
	event: RequestEvent,
	report: { readonly period: Period },
	own: Readonly<Record<(typeof reportTables)[Report][number], () => Table>>
): Promise<Response> {
	const { searchParams } = event.url;
	if (!asksForTable(event.url)) return answer(report);
	const named = Object.entries<() => Table>(own);
	// a request by another name does not come this far, and no report is without a table
	const [table, make] = named.find(([name]) => name === searchParams.get('table')) ?? named[0]!;
	const { columns, rows } = make();
	const { zone } = await site();
	const { first, last } = report.period;
	if (searchParams.get('format') !== 'csv') return answer({ table, period: report.period, timeZone: zone, columns, items: rows });
	const fields = [...columns, 'period_first', 'period_last', 'time_zone'];
	const data = rows.map((row) => [...columns.map((name) => row[name] ?? ''), first, last, zone]);
	const text = `${Papa.unparse({ fields, data }, { newline: '\r\n', escapeFormulae: true })}\r\n`;
	return new Response(`${searchParams.has('mark') ? '\ufeff' : ''}${text}`, {
		headers: {
			'content-type': 'text/csv; charset=utf-8; header=present',
			'content-disposition': `attachment; filename="${event.params.slug ? `${event.params.slug}-` : ''}${table}-${first}-${last}.csv"`,
			'cache-control': 'no-store'
		}
	});
}
