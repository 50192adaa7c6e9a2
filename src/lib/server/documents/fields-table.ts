// Fields filled from a table (CSV): a look at what it would change, and that change, all of it or none.
import { planFields, type FieldsPlan } from '#core/documents/fields-table';
import type { FieldValues } from '#core/documents/fields';
import { sql } from '../db/client';
import { readTable } from '../http/table';
import { site } from '../site/site';
import { changeEach, type BulkUndo } from './change';

/** Most lines whose trouble is told. */
const told = 200;

export interface FieldsTable {
	/** How many documents change, or would. */
	readonly changed: number;
	readonly same: number;
	readonly wrong: FieldsPlan['wrong'];
	readonly leftOut: readonly string[];
	readonly done: boolean;
	readonly undo: BulkUndo;
}

/** Reads a table of fields, and unless it is only looked at or something is wrong with a line, makes its changes. Throws `table-unreadable`. */
export async function fieldsFromTable(bytes: Uint8Array, look: boolean, actor: string): Promise<FieldsTable> {
	const { header, rows } = readTable(bytes);
	const [{ fields = [] }, documents] = await Promise.all([
		site(),
		sql()<{ slug: string; fields: FieldValues; addresses: string[] }[]>`
			select d.slug, d.fields, array(select a.slug from document_address a where a.document_id = d.id) as addresses
			from document d where d.set_aside_at is null`
	]);
	const known = new Map(documents.flatMap((document) => document.addresses.map((address) => [address, document] as const)));
	for (const document of documents) known.set(document.slug, document);
	const { changes, same, wrong, leftOut } = planFields(header, rows, fields, known);
	const done = !look && !wrong.length;
	return {
		changed: changes.length,
		same,
		wrong: wrong.slice(0, told),
		leftOut,
		done,
		undo: done
			? await changeEach(
					changes.map(({ slug, fields: change }) => ({ slug, change: { fields: change } })),
					actor
				)
			: []
	};
}
