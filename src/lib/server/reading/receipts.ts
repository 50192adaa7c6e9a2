// Receipts: a member's own "I have read this", of one edition, once, with an entry in the ledger (model.md, "Receipt").
import { sql as raw } from 'drizzle-orm';
import type postgres from 'postgres';
import { say, type Language } from '#core/words/words';
import { messages } from '#core/words/messages';
import { dayWords } from '#core/access/reach';
import { sql, type Queryable } from '../db/client';
import { theRow } from '../db/rows';
import { newId } from '../id';
import type { Caller, Person } from '../people/who';
import { site } from '../site/site';
import type { Resolved } from './resolve';
import { tellEntered } from './writer';

/** SQL: when somebody gave the receipt that the document `d` asks for, of an edition where it asks for each; null where they did not, or it asks for none. */
export const receiptAt = (person: postgres.Fragment, edition: postgres.Fragment): postgres.Fragment => sql()`(
	select max(r.at) from receipt r where r.document_id = d.id and r.person_id = ${person} and (d.receipt = 'once' or (d.receipt = 'each-edition' and r.edition_id = ${edition})))`;

/** What a member is shown of the receipt that a document asks of them. */
export interface OwnReceipt {
	/** Number of the edition that it would be of. */
	readonly edition: number;
	/** That they gave it, and when, in a sentence; null where they did not. */
	readonly given: string | null;
	/** The sentence once they have given it now. */
	readonly now: string;
	readonly words: { readonly asked: string; readonly give: string; readonly failed: string; readonly signIn: string };
}

/** The receipt that a document asks of who reads it: null where it asks for none, and for all but members who read for themselves. */
export async function ownReceipt({ id, edition }: Resolved, { person, trial }: Caller, language: Language): Promise<OwnReceipt | null> {
	if (person?.role !== 'member' || trial) return null;
	const s = sql();
	const { asks, at } = theRow(
		await s<{ asks: boolean; at: Date | null }[]>`
			select d.receipt is not null as asks, ${receiptAt(s`${person.id}::uuid`, s`${edition.id}::uuid`)} as at from document d where d.id = ${id}`
	);
	if (!asks) return null;
	const { zone } = await site();
	const { receipt: words, account, site: said } = messages[language];
	const sentence = (ms: number) => say(language, words.given, { day: dayWords(ms, zone, language) });
	const text = (message: Parameters<typeof say>[1]) => say(language, message, {});
	return {
		edition: edition.number,
		given: at && sentence(at.getTime()),
		now: sentence(Date.now()),
		words: { asked: text(words.asked), give: text(words.give), failed: text(account.didNotWork), signIn: text(said.signIn) }
	};
}

/**
 * Gives a member's receipt for an edition, by its number: once, entered in the ledger with it. `other-edition` where another one is in force by now,
 * `not-asked` where the document asks for none.
 */
export async function giveReceipt({ id: document }: Resolved, { id: person }: Person, number: number): Promise<'given' | 'other-edition' | 'not-asked'> {
	const outcome = await sql().begin(async (tx) => {
		const { asks, edition, inForce } = theRow(
			await tx<{ asks: boolean; edition: string; inForce: number }[]>`
				select d.receipt is not null as asks, e.id as edition, e.number as "inForce" from document d join edition e on e.id = d.edition_id where d.id = ${document} for share of d`
		);
		if (!asks) return 'not-asked';
		if (number !== inForce) return 'other-edition';
		const given = await tx<{ at: Date }[]>`
			insert into receipt (person_id, document_id, edition_id, at) values (${person}, ${document}, ${edition}, clock_timestamp()) on conflict do nothing returning at`;
		const entry = newId();
		if (given.length)
			await tx`
				insert into ledger (id, at, kind, document_id, edition_id, reading_id, reader, who, person_id, source_kind, staff, robot, preload)
				values (${entry}, ${given[0]!.at}, 'receipt', ${document}, ${edition}, ${entry}, ${`p:${person}`}, 'member', ${person}, 'direct', false, false, false)`;
		return 'given';
	});
	tellEntered();
	return outcome;
}

/** Whether any document asks for a receipt, or has one. */
export async function anyReceipts(): Promise<boolean> {
	const { any } = theRow(
		await sql()<{ any: boolean }[]>`select exists (select 1 from document where receipt is not null) or exists (select 1 from receipt) as any`
	);
	return any;
}

/** Receipts of another site, taken in with their document. */
export async function takeInReceipts(tx: Queryable, document: string, receipts: readonly { person: string; edition: string; at: string }[]): Promise<void> {
	// as one value: a document may have more of them than a statement has parameters
	await tx.execute(raw`
		insert into receipt (person_id, document_id, edition_id, at) select r.person, ${document}::uuid, r.edition, r.at
			from jsonb_to_recordset(${JSON.stringify(receipts)}::jsonb) as r (person uuid, edition uuid, at timestamptz) on conflict do nothing`);
}

/** What of all that somebody may read asks for a receipt which they have not given: the newest first. `readable` is SQL for the ids of documents. */
export const receiptsDue = (person: string, readable: postgres.Fragment): Promise<{ slug: string; title: string; pages: number }[]> => {
	const s = sql();
	return s<{ slug: string; title: string; pages: number }[]>`
		select d.slug, d.title, e.pages from document d join edition e on e.id = d.edition_id
		where d.receipt is not null and (d.id in (${readable})) is true and ${receiptAt(s`${person}::uuid`, s`d.edition_id`)} is null
		order by e.created_at desc, d.id limit 100`;
};
