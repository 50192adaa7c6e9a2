// Folders and topics as documents carry them, and documents that have the same bytes.
import { sql } from '../db/client';

export interface Label {
	readonly name: string;
	readonly count: number;
}

/** Every folder or topic in use, by name, with how many documents have it. */
export function labels(kind: 'folder' | 'topic'): Promise<Label[]> {
	const s = sql();
	return kind === 'folder'
		? s<Label[]>`select folder as name, count(*)::int as count from document where set_aside_at is null and folder <> '' group by folder order by lower(folder)`
		: s<
				Label[]
			>`select topic as name, count(*)::int as count from document, unnest(topics) as topic where set_aside_at is null group by topic order by lower(topic)`;
}

/** Documents one of whose editions has these bytes. */
export function documentsWith(sha256: string): Promise<{ slug: string; title: string; inForce: boolean }[]> {
	return sql()<{ slug: string; title: string; inForce: boolean }[]>`
		select d.slug, d.title, bool_or(e.id = d.edition_id) as "inForce" from edition e join document d on d.id = e.document_id
		where e.sha256 = ${sha256} and d.set_aside_at is null group by d.slug, d.title, d.created_at order by d.created_at limit 20`;
}
