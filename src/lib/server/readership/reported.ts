// What a report on a document needs of it: its edition in force, or an earlier one by its number.
import type { DocumentView } from '../documents/view';
import { sql } from '../db/client';
import { theRow } from '../db/rows';
import type { Reported } from './reports/document';

/** The edition that a report is about, and whether its door is keyed. A number that is not there gives the one in force. */
export async function reported(view: Pick<DocumentView, 'id' | 'edition' | 'door' | 'receipt'>, number = view.edition): Promise<Reported> {
	const edition = theRow(
		await sql()<Reported['edition'][]>`
		select id, number, pages from edition where document_id = ${view.id} and number in (${number}, ${view.edition}) order by number = ${number} desc limit 1`
	);
	return { id: view.id, edition, keyed: view.door.inForce === 'keyed', receipt: view.receipt };
}
