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

type Row = Readonly<Record<string, string | number | boolean | null>>;

/** The lines of each table. A name says its unit; a document is its slug. */
export const rowsOf = {
	documents: (items: readonly DocumentFigures[]): Row[] =>
		items.map((d) => ({
			document: d.slug,
			title: d.title,
			openings: d.openings,
			saves: d.saves,
			readers: d.readers,
			read_seconds: Math.round(d.seconds),
			refusals: d.refusals,
			requests_before: d.before
		})),
	days: (bars: readonly Bar[]): Row[] => bars.map((b) => ({ first_day: b.day, openings: b.openings, saves: b.saves, requests_before: b.before })),
	// days of the week as ISO 8601 counts them, from Monday 1
	hours: (week: Added['week']): Row[] => week.flatMap((hours, day) => hours.map((n, hour) => ({ weekday: day + 1, hour, requests: n }))),
	sources: (items: readonly SourceFigures[]): Row[] => items.map((s) => ({ source: s.kind, name: s.name, page: s.page, openings: s.openings, saves: s.saves })),
	// every page, those on which nobody was too
	pages: (items: readonly PageAttention[], pages: number): Row[] => {
		const known = new Map(items.map((a) => [a.page, a]));
		return Array.from({ length: pages }, (_, i) => {
			const { seconds, readers, stops } = known.get(i + 1) ?? { seconds: 0, readers: 0, stops: 0 };
			return { page: i + 1, read_seconds: Math.round(seconds * 10) / 10, readers, stops };
		});
	},
	people: (items: readonly PersonFigures[]): Row[] =>
		items.map((p) => ({
			name: p.name,
			email: p.email,
			openings: p.openings,
			saves: p.saves,
			prints: p.printed,
			read_seconds: Math.round(p.seconds),
			pages_read: p.pagesRead,
			furthest_page: p.furthest,
			first_at: p.first,
			last_at: p.last,
			came_by: p.from
		})),
	roll: (items: readonly RollLine[]): Row[] =>
		items.map((r) => ({
			name: r.name,
			email: r.email,
			groups: r.groups.map((g) => g.slug).join('; '),
			standing: r.standing,
			opened: r.opened,
			read_through: r.through,
			receipt_at: r.receipt,
			last_at: r.last,
			reminded_at: r.reminded
		})),
	read: (items: readonly ReadDocument[]): Row[] =>
		items.map((d) => ({
			document: d.slug,
			title: d.title,
			openings: d.openings,
			saves: d.saves,
			prints: d.printed,
			read_seconds: Math.round(d.seconds),
			pages_read: d.pagesRead,
			pages: d.pages,
			first_at: d.first,
			last_at: d.last
		})),
	places: (items: readonly PlaceFigures[]): Row[] =>
		items.map((p) => ({
			place: p.kind,
			where: p.where,
			document: p.slug,
			title: p.document,
			form: p.form,
			shown: p.shown,
			pressed: p.pressed,
			openings: p.openings,
			saves: p.saves
		})),
	refusals: (items: readonly Refusals[]): Row[] =>
		items.map((r) => ({
			document: r.slug,
			title: r.title,
			reason: r.reason,
			page: r.page,
			times: r.times,
			people: r.people.join('; '),
			nameless: r.nameless,
			last_at: r.last,
			dead_end: r.deadEnd
		}))
};

/** The columns of each, also where it has no line. */
const columns: Record<keyof typeof rowsOf, string> = {
	documents: 'document title openings saves readers read_seconds refusals requests_before',
	days: 'first_day openings saves requests_before',
	hours: 'weekday hour requests',
	sources: 'source name page openings saves',
	pages: 'page read_seconds readers stops',
	people: 'name email openings saves prints read_seconds pages_read furthest_page first_at last_at came_by',
	roll: 'name email groups standing opened read_through receipt_at last_at reminded_at',
	read: 'document title openings saves prints read_seconds pages_read pages first_at last_at',
	places: 'place where document title form shown pressed openings saves',
	refusals: 'document title reason page times people nameless last_at dead_end'
};

/** Whether a table is asked for, which has all its lines, and not the report. */
export const asksForTable = ({ searchParams }: URL): boolean => searchParams.get('format') === 'csv' || searchParams.has('table');

/**
 * What a report answers: the whole of it as JSON; with `table` one of its tables, with `format=csv` as CSV (the first of them where none is named). `mark`
 * puts the mark before CSV by which spreadsheets know UTF-8. `tables` are those that this report has.
 */
export async function reportAnswer<Report extends keyof typeof reportTables>(
	event: RequestEvent,
	report: { readonly period: Period },
	tables: Readonly<Record<(typeof reportTables)[Report][number], () => readonly Row[]>>
): Promise<Response> {
	const { searchParams } = event.url;
	if (!asksForTable(event.url)) return answer(report);
	const named = Object.entries(tables) as [keyof typeof rowsOf, () => readonly Row[]][];
	// a request by another name does not come this far, and no report is without a table
	const [table, rows] = named.find(([name]) => name === searchParams.get('table')) ?? named[0]!;
	const { zone } = await site();
	const { first, last } = report.period;
	const names = columns[table].split(' ');
	if (searchParams.get('format') !== 'csv') return answer({ table, period: report.period, timeZone: zone, columns: names, items: rows() });
	const fields = [...names, 'period_first', 'period_last', 'time_zone'];
	const data = rows().map((row) => fields.map((name) => row[name] ?? { period_first: first, period_last: last, time_zone: zone }[name] ?? ''));
	const text = `${Papa.unparse({ fields, data }, { newline: '\r\n', escapeFormulae: true })}\r\n`;
	return new Response(`${searchParams.has('mark') ? '\ufeff' : ''}${text}`, {
		headers: {
			'content-type': 'text/csv; charset=utf-8; header=present',
			'content-disposition': `attachment; filename="${event.params.slug ? `${event.params.slug}-` : ''}${table}-${first}-${last}.csv"`,
			'cache-control': 'no-store'
		}
	});
}
