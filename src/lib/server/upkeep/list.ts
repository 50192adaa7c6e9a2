// The upkeep list: documents that cannot be shown, carry active content or whose source changed or went, and those set aside.
import { dayOf } from '#core/access/hours';
import { setAsideDays } from '#core/documents/aside';
import type { Finding } from '#core/intake/condition';
import { worstFirst, type UpkeepKind, type UpkeepLine } from '#core/upkeep/upkeep';
import { sql } from '../db/client';
import { theRow } from '../db/rows';
import { site } from '../site/site';

interface Row {
	kind: UpkeepKind;
	slug: string;
	title: string;
	findings: Finding[];
	note: string;
	pages: number;
	at: Date;
}

const sourceWords = {
	'source-gone': 'The file it was fetched from is no longer there. Our own copy stays as it is; look whether it still holds.',
	'source-changed': 'The website it was fetched from has another file now.',
	'source-unreachable': 'The website it was fetched from could not be reached.'
} as const;

function textOf(row: Row): string {
	switch (row.kind) {
		case 'cannot-be-shown':
			return row.findings[0]?.text ?? '';
		case 'active-content':
			return row.findings.find((f) => f.code === 'active-content')?.text ?? '';
		case 'review-due':
			return `Somebody should look whether it still holds${row.note ? `: ${row.note}` : ''}.`;
		case 'set-aside':
			return `Set aside; it can be restored for ${setAsideDays} days, then its file goes.`;
		default:
			return `${sourceWords[row.kind]}${row.note && row.kind === 'source-unreachable' ? ` ${row.note}` : ''}`;
	}
}

/** Everything that needs a hand, worst first, and how many documents are worth a look for other reasons. */
export async function upkeep(): Promise<{ lines: UpkeepLine[]; look: number }> {
	const s = sql();
	const { zone } = await site();
	const pages = s`(select count(distinct page_id)::int from placement p where p.document_id = d.id and p.published) as pages`;
	const [rows, other] = await Promise.all([
		s<Row[]>`
			select case when e.condition = 'refused' then 'cannot-be-shown' else 'active-content' end as kind, d.slug, d.title, e.findings, '' as note, e.created_at as at, ${pages}
				from document d join edition e on e.id = d.edition_id
				where d.set_aside_at is null and (e.condition = 'refused' or e.findings @> '[{"code": "active-content"}]')
			union all select 'source-' || s.state, d.slug, d.title, '[]', s.note, s.checked_at, ${pages}
				from source s join document d on d.id = s.document_id where d.set_aside_at is null and s.watch and s.state <> 'same'
			union all select 'review-due', d.slug, d.title, '[]', coalesce((select name from person where id = d.review_by), ''), d.review_on::timestamp at time zone ${zone}, ${pages}
				from document d where d.set_aside_at is null and d.review_on <= ${dayOf(Date.now(), zone)}::date
			union all select 'set-aside', d.slug, d.title, '[]', '', d.set_aside_at + make_interval(days => ${setAsideDays}), ${pages}
				from document d where d.set_aside_at is not null and d.gone_at is null`,
		s<{ n: number }[]>`select count(*)::int as n from document d join edition e on e.id = d.edition_id
			where d.set_aside_at is null and e.condition = 'look' and not e.findings @> '[{"code": "active-content"}]'`
	]);
	return {
		lines: worstFirst(rows.map((row) => ({ kind: row.kind, slug: row.slug, title: row.title, text: textOf(row), pages: row.pages, at: row.at.getTime() }))),
		look: theRow(other).n
	};
}
