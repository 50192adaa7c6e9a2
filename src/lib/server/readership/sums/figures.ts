// What reports read of the sums: the rows that make up some days, and distinct readers over them.
import type postgres from 'postgres';
import { piecesOf, type Days } from '#core/readership/period';
import { sql } from '../../db/client';

/** Stands for all documents together in the tables of sums. */
export const wholeSite = '00000000-0000-0000-0000-000000000000';

/** Stands for no page of ours in the sums of who was turned away. */
export const noPage = wholeSite;

/** The rows of sums that make up some days, as few as there can be. Joined with `using (span, day)`. */
export const piecesIn = (days: Days) => {
	const { spans, days: firsts } = piecesOf(days);
	return sql()`unnest(${spans as string[]}::text[], ${firsts as string[]}::date[]) as pieces (span, day)`;
};

/** Distinct readers, exactly, over all of the days: an expression, for the document that another one names. */
export const readersIn = (document: postgres.Fragment, days: Days) => {
	const { spans, days: firsts } = piecesOf(days);
	return sql()`readers_count(${document}, ${spans as string[]}::text[], ${firsts as string[]}::date[])`;
};

/** The same of many documents at once, by their ids. */
export async function readersOfEach(documents: readonly string[], days: Days): Promise<Map<string, number>> {
	const { spans, days: firsts } = piecesOf(days);
	const rows = await sql()<{ document: string; n: number }[]>`
		select document, n from readers_counts(${documents as string[]}::uuid[], ${spans as string[]}::text[], ${firsts as string[]}::date[])`;
	return new Map(rows.map((r) => [r.document, r.n]));
}
