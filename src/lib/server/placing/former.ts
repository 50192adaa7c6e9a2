// Former addresses: kept, counted, and what was asked for and is not here.
import { Type, type Static } from '@sinclair/typebox';
import { sql as raw } from 'drizzle-orm';
import { IanuaError } from '#core/errors';
import { nullable } from '#core/schema';
import { byName, closestFirst, formerPath, isPattern, longestFormer, starName } from '#core/placing/former-address';
import { db, sql, type Queryable } from '../db/client';
import { newId } from '../id';
import { slugFor } from '../slug';
import { writeAudit } from '../site/audit';

export const FormerGiven = Type.Object(
	{
		items: Type.Array(
			Type.Object(
				{
					path: Type.String({
						maxLength: longestFormer + 300,
						description: 'the address on the old website, whole or from its first slash; in a pattern * stands for letters of one step, ** for steps too'
					}),
					document: Type.String({
						maxLength: 80,
						description: 'the slug of the document that it leads to; * with a pattern: the one of the name at its last star'
					})
				},
				{ additionalProperties: false }
			),
			{ minItems: 1, maxItems: 5000 }
		),
		preview: Type.Optional(Type.Boolean({ description: 'only say what would come of it' }))
	},
	{ additionalProperties: false }
);

/** What comes of one of them: new, there already, led elsewhere before, or why it cannot be. */
export const FormerOutcome = Type.Object({
	path: Type.String(),
	document: Type.String(),
	outcome: Type.Union(['new', 'same', 'changed', 'refused'].map((word) => Type.Literal(word))),
	why: nullable(Type.String()),
	takes: Type.Array(Type.Object({ path: Type.String(), document: nullable(Type.String({ description: 'null where none has the name' })) }), {
		description: 'of a pattern: what was asked for and is not here that it takes, at most 20'
	})
});
type Outcome = {
	path: string;
	document: string;
	outcome: 'new' | 'same' | 'changed' | 'refused';
	why: string | null;
	takes: { path: string; document: string | null }[];
};

export const FormerView = Type.Object({
	id: Type.String({ format: 'uuid' }),
	path: Type.String(),
	document: Type.String({ description: 'its slug; * for a pattern that leads to the document of the name' }),
	title: nullable(Type.String()),
	asked: Type.Integer({ description: 'how often somebody came by it' }),
	lastAt: nullable(Type.String({ format: 'date-time' })),
	lastFrom: nullable(Type.String({ description: 'the website from which the last one came' })),
	createdAt: Type.String({ format: 'date-time' })
});
export type FormerView = Static<typeof FormerView>;

export const MissedView = Type.Object({
	path: Type.String(),
	asked: Type.Integer(),
	lastAt: Type.String({ format: 'date-time' }),
	lastFrom: nullable(Type.String())
});
export type MissedView = Static<typeof MissedView>;

export interface FormerQuery {
	/** Only those of one document, by its slug. */
	readonly document?: string;
	/** Only those with these letters in them. */
	readonly q?: string;
	readonly limit?: number;
	/** The path after which to go on. */
	readonly after?: string;
}

/** Former addresses by their paths. */
export async function formerAddresses({ document, q, limit = 100, after }: FormerQuery = {}): Promise<{ items: FormerView[]; next: string | null }> {
	const s = sql();
	const rows = await s<(Omit<FormerView, 'lastAt' | 'createdAt' | 'lastFrom'> & { last_at: Date | null; last_from: string | null; created_at: Date })[]>`
		select f.id, f.path, coalesce(d.slug, ${byName}) as document, d.title, f.asked, f.last_at, f.last_from, f.created_at
		from former_address f left join document d on d.id = f.document_id
		where d.gone_at is null ${document === undefined ? s`` : s`and d.slug = ${document}`} ${q ? s`and position(lower(${q}) in lower(f.path)) > 0` : s``} ${after === undefined ? s`` : s`and f.path > ${after}`}
		order by f.path limit ${limit + 1}`;
	const items = rows.slice(0, limit).map(({ last_at, last_from, created_at, ...row }) => ({
		...row,
		lastAt: last_at?.toISOString() ?? null,
		lastFrom: last_from,
		createdAt: created_at.toISOString()
	}));
	return { items, next: rows.length > limit ? (items[items.length - 1]?.path ?? null) : null };
}

/** What was asked for and is not here, what is asked for most first. */
export async function missedAddresses(limit = 200): Promise<MissedView[]> {
	const rows = await sql()<{ path: string; asked: number; last_at: Date; last_from: string | null }[]>`
		select path, asked, last_at, last_from from missed_address order by asked desc, last_at desc limit ${limit}`;
	return rows.map(({ path, asked, last_at, last_from }) => ({ path, asked, lastAt: last_at.toISOString(), lastFrom: last_from }));
}

/** Says what would come of each, in the order given. */
async function outcomesOf(items: Static<typeof FormerGiven>['items']): Promise<Outcome[]> {
	const s = sql();
	const read = items.map(({ path, document }) => ({ given: path, path: formerPath(path), document }));
	const paths = read.flatMap(({ path }) => (path === null ? [] : [path]));
	const slugs = read.map(({ document }) => document);
	const [there, documents, pages] = await Promise.all([
		paths.length
			? s<{ path: string; slug: string }[]>`
				select f.path, coalesce(d.slug, ${byName}) as slug from former_address f left join document d on d.id = f.document_id where f.path in ${s(paths)}`
			: [],
		s<{ slug: string }[]>`select slug from document where slug in ${s(slugs)} and gone_at is null`,
		paths.length ? s<{ path: string }[]>`select path from page where path in ${s(paths)}` : []
	]);
	const leads = new Map(there.map(({ path, slug }) => [path, slug]));
	const [known, taken] = [new Set(documents.map((d) => d.slug)), new Set(pages.map((p) => p.path))];
	const seen = new Set<string>();
	const missed = paths.some(isPattern) ? await missedAddresses(mostMissed) : [];
	const takes = await takenBy(missed, read);
	return read.map(({ given, path, document }) => {
		const refused = (why: string): Outcome => ({ path: path ?? given.slice(0, longestFormer), document, outcome: 'refused', why, takes: [] });
		if (path === null) return refused('it is no address that a request could be led on from: this site answers it itself, or it cannot be read');
		if (document === byName && !isPattern(path)) return refused('only a pattern leads to the document of a name');
		if (document !== byName && !known.has(document)) return refused('there is no such document');
		if (taken.has(path)) return refused('a page of this site stands there');
		if (seen.has(path)) return refused('it stands in the list before');
		seen.add(path);
		const now = leads.get(path);
		return {
			path,
			document,
			outcome: now === undefined ? 'new' : now === document ? 'same' : 'changed',
			why: now !== undefined && now !== document ? (now === byName ? 'it led to the document of the name' : `it led to ${now}`) : null,
			takes: takes.get(path) ?? []
		};
	});
}

/** What patterns take of addresses that were asked for and are not here: by each pattern, with the document that each would lead to. */
async function takenBy(
	missed: readonly { path: string }[],
	lines: readonly { path: string | null; document: string }[]
): Promise<Map<string, { path: string; document: string | null }[]>> {
	const taken = lines.flatMap(({ path: pattern, document }) =>
		pattern === null || !isPattern(pattern)
			? []
			: missed
					.flatMap(({ path }) => {
						const name = starName(pattern, path);
						return name === null ? [] : [{ pattern, path, document, slug: slugFor(name, '') }];
					})
					.slice(0, 20)
	);
	const named = await documentsNamed(taken.flatMap(({ document, slug }) => (document === byName ? [slug] : [])));
	const by = new Map<string, { path: string; document: string | null }[]>();
	for (const { pattern, path, document, slug } of taken)
		by.set(pattern, [...(by.get(pattern) ?? []), { path, document: document === byName ? (named.get(slug) ?? null) : document }]);
	return by;
}

/** The documents that have or had these slugs, by the slug asked for. */
export async function documentsNamed(slugs: readonly string[]): Promise<Map<string, string>> {
	if (!slugs.length) return new Map();
	const s = sql();
	const rows = await s<{ asked: string; slug: string }[]>`
		select a.slug as asked, d.slug from document_address a join document d on d.id = a.document_id where a.slug in ${s([...slugs])} and d.gone_at is null
		union all select slug, slug from document where slug in ${s([...slugs])} and gone_at is null`;
	return new Map(rows.map(({ asked, slug }) => [asked, slug]));
}

/** Has addresses lead to documents for good, and says what came of each; with `preview` nothing is written. */
export async function addFormerAddresses({ items, preview = false }: Static<typeof FormerGiven>, actor: string): Promise<Outcome[]> {
	const outcomes = await outcomesOf(items);
	const written = outcomes.filter(({ outcome }) => outcome === 'new' || outcome === 'changed');
	if (preview || !written.length) return outcomes;
	const rows = JSON.stringify(written.map(({ path, document }) => ({ id: newId(), path, document })));
	await db().transaction(async (tx) => {
		await tx.execute(raw`
			insert into former_address (id, path, document_id, created_by)
			select r.id, r.path, d.id, ${actor}::uuid from jsonb_to_recordset(${rows}::jsonb) as r (id uuid, path text, document text) left join document d on d.slug = r.document
			on conflict (path) do update set document_id = excluded.document_id, created_by = excluded.created_by`);
		const answered = [...written.map(({ path }) => path), ...written.flatMap(({ takes }) => takes.flatMap((t) => (t.document === null ? [] : [t.path])))];
		await tx.execute(raw`delete from missed_address where path in (select jsonb_array_elements_text(${JSON.stringify(answered)}::jsonb))`);
		const shown = written.slice(0, 100).map(({ path, document }) => `${path} → ${document}`);
		await writeAudit(tx, { actor, action: 'added', kind: 'site', thing: newId(), after: { formerAddresses: shown, count: written.length } });
	});
	return outcomes;
}

/** Takes former addresses of a document (null: patterns that lead by name) in as they were on another site, with who came by them; those that lead somewhere already stay. */
export async function takeInFormer(
	tx: Queryable,
	documentId: string | null,
	given: readonly { path: string; asked: number; lastAt: string | null; lastFrom: string | null }[],
	actor: string | null
): Promise<void> {
	const items = given.flatMap(({ path, ...rest }) => {
		const read = formerPath(path);
		return read === null ? [] : [{ id: newId(), path: read, ...rest }];
	});
	if (items.length)
		await tx.execute(raw`
			insert into former_address (id, path, document_id, created_by, asked, last_at, last_from)
			select r.id, r.path, ${documentId}::uuid, ${actor}::uuid, r.asked, r."lastAt", r."lastFrom"
			from jsonb_to_recordset(${JSON.stringify(items)}::jsonb) as r (id uuid, path text, asked int, "lastAt" timestamptz, "lastFrom" text)
			where not exists (select 1 from page where page.path = r.path) on conflict do nothing`);
}

/** Lets a former address go: whoever asks for it finds nothing. Gives what it was. Throws `not-found`. */
export async function dropFormerAddress(id: string, actor: string): Promise<{ path: string; document: string }> {
	return db().transaction(async (tx) => {
		const [row] = await tx.execute<{ path: string; document: string }>(raw`
			delete from former_address f where f.id = ${id}
			returning f.path, coalesce((select slug from document where id = f.document_id), ${byName}) as document`);
		if (!row) throw new IanuaError('not-found');
		await writeAudit(tx, { actor, action: 'withdrawn', kind: 'site', thing: id, before: { formerAddress: row.path, document: row.document } });
		return { path: row.path, document: row.document };
	});
}

/** The document that an address leads to, by its slug, and the former address or the pattern by which it does; null where it leads nowhere. */
export async function formerTarget(path: string): Promise<{ slug: string; by: string } | null> {
	const rows = await sql()<{ path: string; slug: string | null }[]>`
		select f.path, d.slug from former_address f left join document d on d.id = f.document_id where f.path = ${path} or position('*' in f.path) > 0`;
	// the address itself before any pattern
	const own = rows.find((row) => row.path === path);
	if (own?.slug) return { slug: own.slug, by: own.path };
	for (const { path: by, slug } of rows.sort((a, b) => closestFirst(a.path, b.path))) {
		const name = starName(by, path);
		if (name === null) continue;
		const asked = slugFor(name, '');
		const led = slug ?? (await documentsNamed([asked])).get(asked);
		if (led !== undefined) return { slug: led, by };
	}
	return null;
}

/** Somebody came by a former address, from another website or not. */
export async function countFormer(path: string, from: string | null): Promise<void> {
	await sql()`update former_address set asked = asked + 1, last_at = now(), last_from = coalesce(${from}, last_from) where path = ${path}`;
}

/** Missed addresses that are kept, those asked for most lately. */
const mostMissed = 2000;

/** Somebody asked for what is not here. */
export async function countMissed(path: string, from: string | null): Promise<void> {
	const s = sql();
	await s`insert into missed_address (path, last_from) values (${path}, ${from})
		on conflict (path) do update set asked = missed_address.asked + 1, last_at = now(), last_from = coalesce(excluded.last_from, missed_address.last_from)`;
	await s`delete from missed_address where path in (select path from missed_address order by last_at desc offset ${mostMissed})`;
}

/** Which of these addresses lead somewhere already. */
export async function leadsAlready(paths: readonly string[]): Promise<Set<string>> {
	const rows = await sql()<
		{ path: string }[]
	>`select path from former_address where path in (select jsonb_array_elements_text(${JSON.stringify(paths)}::jsonb))`;
	return new Set(rows.map(({ path }) => path));
}

/** Takes an address out of those that were asked for and are not here, until it is asked for again. */
export async function forgetMissed(path: string): Promise<void> {
	await sql()`delete from missed_address where path = ${path}`;
}
