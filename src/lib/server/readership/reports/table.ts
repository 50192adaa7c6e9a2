// A report as a table that a program takes (CSV, RFC 4180): every line of it, fixed names with their units, and in each line for which time it is.
import type { RequestEvent } from '@sveltejs/kit';
import Papa from 'papaparse';
import type { Bar, Period } from '#core/readership/period';
import { answer } from '../../http/api';
import { site } from '../../site/site';

import type { DocumentFigures } from './overview';
import type { ReadDocument } from './reader';
import type { PlaceFigures, Refusals } from '../contract';

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

const columns: Record<keyof typeof rowsOf, string> = {
	documents: 'document title openings saves readers read_seconds refusals requests_before',
	days: 'first_day openings saves requests_before',
	read: 'document title openings saves prints read_seconds pages_read pages first_at last_at',
	places: 'place where document title form shown pressed openings saves',
	refusals: 'document title reason page times people nameless last_at dead_end'
};

/** What a report answers: JSON, or with `format=csv` its table; `mark` puts the mark before it by which spreadsheets know UTF-8. */
export async function reportAnswer(
	event: RequestEvent,
	report: { readonly period: Period },
	table: keyof typeof rowsOf,
	rows: readonly Row[]
): Promise<Response> {
	const { searchParams } = event.url;
	if (searchParams.get('format') !== 'csv') return answer(report);
	const { zone } = await site();
	const { first, last } = report.period;
	const fields = [...columns[table].split(' '), 'period_first', 'period_last', 'time_zone'];
	const data = rows.map((row) => fields.map((name) => row[name] ?? { period_first: first, period_last: last, time_zone: zone }[name] ?? ''));
	const text = `${Papa.unparse({ fields, data }, { newline: '\r\n', escapeFormulae: true })}\r\n`;
	return new Response(`${searchParams.has('mark') ? '\ufeff' : ''}${text}`, {
		headers: {
			'content-type': 'text/csv; charset=utf-8; header=present',
			'content-disposition': `attachment; filename="${table}-${first}-${last}.csv"`,
			'cache-control': 'no-store'
		}
	});
}
