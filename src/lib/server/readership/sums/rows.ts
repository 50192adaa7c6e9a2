// How entries are read for the sums, and how rows come into their tables.
import type postgres from 'postgres';
import type { Summable } from '#core/readership/counting';
import { sql } from '../../db/client';
import type { Entry } from '../recent';

export type Transaction = postgres.TransactionSql;

export interface EntryRow {
	id: string;
	at: Date;
	kind: Summable['kind'];
	document_id: string;
	edition_id: string;
	reader: string;
	who: string;
	person_id: string | null;
	source_kind: Summable['source']['kind'];
	page_id: string | null;
	placement_id: string | null;
	outside: string | null;
	key_id: string | null;
	device: Summable['device'] | null;
	controlled: boolean | null;
	attention: Summable['attention'];
	reason: Summable['reason'];
	staff: boolean;
}

/** The columns of an entry, as a piece of a query. */
export const entryColumns = () =>
	sql()`id, at, kind, document_id, edition_id, reader, who, person_id, source_kind, page_id, placement_id, outside, key_id, device, controlled, attention, reason, staff`;

/** A row of the ledger as the core counts it. */
export const entryOf = (row: EntryRow): Entry => ({
	id: row.id,
	at: row.at.getTime(),
	kind: row.kind,
	reader: row.reader,
	staff: row.staff,
	// left out by the query
	robot: false,
	preload: false,
	edition: row.edition_id,
	person: row.person_id,
	key: row.key_id,
	device: row.device ?? 'other',
	controlled: row.controlled ?? row.who !== 'visitor',
	placement: row.placement_id,
	source: { kind: row.source_kind, page: row.page_id, outside: row.outside },
	attention: row.attention,
	reason: row.reason
});

/** Rows of the documents named, or (null) of all, the whole site among them. */
export const onlyOf = (tx: Transaction, documents: readonly string[] | null) =>
	documents ? tx`and document_id = any(${documents as string[]}::uuid[])` : tx``;

/** Rows into one of the tables of sums, all in one parameter: there may be many. (COPY is slower for few rows: its replies wait for each other.) */
export async function insert(
	tx: Transaction,
	table: 'sum_figures' | 'sum_source' | 'sum_reader' | 'sum_page' | 'sum_refused' | 'sum_reason',
	rows: readonly object[]
): Promise<void> {
	for (let i = 0; i < rows.length; i += 20_000) {
		const part = rows.slice(i, i + 20_000);
		await tx`insert into ${tx(table)} select * from jsonb_populate_recordset(null::${tx(table)}, ${tx.json(part as never)})`;
	}
}

/** Numbers of readers; new ones get theirs. */
export async function numbersOf(tx: Transaction, names: ReadonlySet<string>): Promise<Map<string, number>> {
	const known = async (wanted: readonly string[]) =>
		// offset 0: each is looked up, however many readers there are
		tx<{ name: string; number: number }[]>`
			select w.name, r.number from unnest(${wanted as string[]}::text[]) as w (name) cross join lateral (select number from reader where name = w.name offset 0) r`;
	const numbers = new Map((await known([...names])).map((r) => [r.name, r.number]));
	const fresh = [...names].filter((name) => !numbers.has(name));
	if (!fresh.length) return numbers;
	// whoever came in between is left to them, and no number is spent on those that are there
	const rows = await tx<
		{ name: string; number: number }[]
	>`insert into reader (name) select unnest(${fresh}::text[]) on conflict do nothing returning name, number`;
	for (const { name, number } of rows.length === fresh.length ? rows : [...rows, ...(await known(fresh))]) numbers.set(name, number);
	return numbers;
}
