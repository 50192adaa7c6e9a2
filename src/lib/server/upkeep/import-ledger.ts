// The ledger of an export, taken in: its lines name documents, people, pages and keys as people do, entries name them as they are here.
import { randomUUID } from 'node:crypto';
import { sql as raw } from 'drizzle-orm';
import type { ExportLine } from '#core/upkeep/portable';
import type { Queryable } from '../db/client';
import { takeInEntries, type EntryTakenIn } from '../reading/take-in';

/** Entries that are entered at once. */
const atOnce = 1000;

/** What entries of the ledger name, here. */
interface Names {
	readonly documents: ReadonlyMap<string, { readonly id: string; readonly editions: ReadonlyMap<number, string> }>;
	readonly people: ReadonlyMap<string, string>;
	readonly pages: ReadonlyMap<string, string>;
	readonly keys: ReadonlySet<string>;
	readonly slugs: ReadonlyMap<string, string>;
}

async function namesHere(tx: Queryable, slugs: ReadonlyMap<string, string>): Promise<Names> {
	const editions = await tx.execute<{ slug: string; document: string; number: number; id: string }>(
		raw`select d.slug, d.id as document, e.number, e.id from document d join edition e on e.document_id = d.id`
	);
	const documents = new Map<string, { id: string; editions: Map<number, string> }>();
	for (const { slug, document, number, id } of editions) {
		const there = documents.get(slug) ?? { id: document, editions: new Map<number, string>() };
		there.editions.set(number, id);
		documents.set(slug, there);
	}
	const [people, pages, keys] = [
		await tx.execute<{ email: string; id: string }>(raw`select email, id from person where closed_at is null`),
		await tx.execute<{ path: string; id: string }>(raw`select path, id from page`),
		await tx.execute<{ id: string }>(raw`select id from door_key`)
	];
	return {
		documents,
		people: new Map(people.map(({ email, id }) => [email, id])),
		pages: new Map(pages.map(({ path, id }) => [path, id])),
		keys: new Set(keys.map(({ id }) => id)),
		slugs
	};
}

/**
 * Makes entries out of lines. A reader who is a person here goes by that; any other gets a name that says nothing, the same in the whole import: such
 * readers are counted and never told apart beyond it. An entry of a document that did not come is none.
 */
function entriesFrom({ documents, people, pages, keys, slugs }: Names): (line: ExportLine<'ledger'>) => EntryTakenIn | null {
	const nameless = new Map<number, string>();
	return (line) => {
		const document = documents.get(slugs.get(line.document) ?? line.document);
		const editionId = document?.editions.get(line.edition);
		if (!slugs.has(line.document) || !document || !editionId) return null;
		const personId = line.person === null ? null : (people.get(line.person) ?? null);
		let reader = personId === null ? nameless.get(line.reader) : `p:${personId}`;
		if (reader === undefined) nameless.set(line.reader, (reader = `x:${randomUUID()}`));
		const { kind, page, placement, site: outside } = line.source;
		return {
			id: line.id,
			at: line.at,
			kind: line.kind as EntryTakenIn['kind'],
			documentId: document.id,
			editionId,
			readingId: line.reading,
			reader,
			who: line.who,
			personId,
			reason: line.reason,
			sourceKind: kind,
			pageId: page === null ? null : (pages.get(page) ?? null),
			placementId: placement,
			outside,
			staff: line.staff,
			robot: line.robot,
			preload: line.preload,
			keyId: line.key !== null && keys.has(line.key) ? line.key : null,
			stamp: line.stamp,
			attention: line.pages,
			device: line.device,
			controlled: line.controlled
		};
	};
}

/** Takes the lines of a ledger in, a thousand at once; `slugs` are the documents that came, by what they were called there. Gives how many entries are new. */
export async function takeInLedger(
	tx: Queryable,
	lines: AsyncIterable<ExportLine<'ledger'>>,
	slugs: ReadonlyMap<string, string>,
	say: (line: string) => void
): Promise<number> {
	const entryOf = entriesFrom(await namesHere(tx, slugs));
	let [fresh, read] = [0, 0];
	let ready: EntryTakenIn[] = [];
	const enter = async () => {
		if (ready.length) fresh += await takeInEntries(tx, ready);
		ready = [];
	};
	for await (const line of lines) {
		const entry = entryOf(line);
		if (entry) ready.push(entry);
		if (ready.length === atOnce) await enter();
		if (++read % 100_000 === 0) say(`${read} entries of the ledger read`);
	}
	await enter();
	return fresh;
}
