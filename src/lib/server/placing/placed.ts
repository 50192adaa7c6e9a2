// Where documents are placed, for other capabilities to ask.
import { sql } from '../db/client';

/** Whether a page of a document is placed as a cover somewhere. */
export async function isPlacedAsCover(documentId: string, page: number): Promise<boolean> {
	const [row] = await sql()`select 1 from placement where document_id = ${documentId} and cover_page = ${page} limit 1`;
	return row !== undefined;
}
