// Keys as staff look after them: those of a document and of all, withdrawn, given back and given another end, many at once.
import { eq, inArray } from 'drizzle-orm';
import { Type, type Static } from '@sinclair/typebox';
import { KeyGiven, keyState, keyStates, type KeyState } from '#core/access/key';
import { IanuaError } from '#core/errors';
import { holding } from '../db/like';
import { db, sql } from '../db/client';
import { doorKey } from '../db/schema';
import type { After } from '../http/cursor';
import { isId } from '../id';
import { writeAudit } from '../site/audit';
import { site } from '../site/site';
import { checkEnd, untilOf, type KeyRow } from './keys';

export interface KeyView {
	readonly id: string;
	readonly label: string;
	readonly allow: { readonly save: boolean; readonly print: boolean };
	readonly until: string | null;
	readonly openings: number | null;
	/** Openings it has given. */
	readonly used: number;
	readonly saves: number;
	readonly lastUsedAt: string | null;
	readonly password: boolean;
	readonly createdAt: string;
	readonly createdBy: string | null;
	readonly withdrawnAt: string | null;
	/** Good now, or why not. */
	readonly state: KeyState;
}

/** A key in the list of all. */
export interface ListedKey extends KeyView {
	readonly document: { readonly slug: string; readonly title: string };
}

const stateOf = (row: Pick<KeyRow, 'withdrawn_at' | 'until_bound' | 'openings' | 'used'>, zone: string, now: number): KeyState =>
	keyState(
		{
			withdrawn: row.withdrawn_at !== null,
			until: untilOf(row.until_bound, zone),
			openingsLeft: row.openings === null ? null : row.openings - row.used
		},
		now
	);

/** Keys with what each did, the newest first: those of a document, or these. */
async function views(of: { slug: string } | { ids: readonly string[] }): Promise<ListedKey[]> {
	const s = sql();
	const which = 'slug' in of ? s`d.slug = ${of.slug}` : s`k.id = any(${[...of.ids]}::uuid[])`;
	const [rows, { zone }] = await Promise.all([
		s<(KeyRow & { slug: string; title: string; created_by_name: string | null; saves: number; last_at: Date | null })[]>`
			select k.*, d.slug, d.title, p.name as created_by_name,
				(select count(*)::int from ledger l where l.key_id = k.id and l.kind = 'saved') as saves,
				(select max(l.at) from ledger l where l.key_id = k.id and l.kind <> 'turned-away') as last_at
			from door_key k join document d on d.id = k.document_id left join person p on p.id = k.created_by where ${which} order by k.created_at desc, k.id desc`,
		site()
	]);
	const now = Date.now();
	return rows.map((row) => ({
		id: row.id,
		label: row.label,
		allow: { save: row.allow_save, print: row.allow_print },
		until: row.until_bound,
		openings: row.openings,
		used: row.used,
		saves: row.saves,
		lastUsedAt: row.last_at?.toISOString() ?? null,
		password: row.password_hash !== null,
		createdAt: row.created_at.toISOString(),
		createdBy: row.created_by_name,
		withdrawnAt: row.withdrawn_at?.toISOString() ?? null,
		state: stateOf(row, zone, now),
		document: { slug: row.slug, title: row.title }
	}));
}

/** The keys of a document with what each did, the newest first. */
export const keysOf = async (slug: string): Promise<KeyView[]> => (await views({ slug })).map(({ document: _, ...view }) => view);

export interface KeyQuery {
	/** Part of a label, of the address that a key was mailed to, or of its document's title. */
	readonly q?: string | undefined;
	readonly state?: KeyState | undefined;
	/** Address of a document. */
	readonly document?: string | undefined;
	readonly offset?: number;
	/** Those behind this one, in place of `offset`. */
	readonly after?: After | undefined;
	readonly limit?: number;
}

export interface KeyList {
	readonly items: ListedKey[];
	readonly total: number;
	/** How many there are of each state, whichever is asked for. */
	readonly states: Readonly<Record<KeyState, number>>;
	/** The last of the items, where others are behind it. */
	readonly next: After | null;
}

/** The keys of all documents but those set aside, the newest first. Whether one is good is the core's to say, so all that fit are looked at. */
export async function listKeys({ q = '', state, document, offset = 0, after, limit = 50 }: KeyQuery): Promise<KeyList> {
	const s = sql();
	const like = holding(q.trim());
	const [rows, { zone }] = await Promise.all([
		s<(Pick<KeyRow, 'id' | 'withdrawn_at' | 'until_bound' | 'openings' | 'used'> & { made: string })[]>`
			select k.id, k.withdrawn_at, k.until_bound, k.openings, k.used, to_char(k.created_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US') as made
			from door_key k join document d on d.id = k.document_id
			where d.set_aside_at is null and (k.label ilike ${like} or k.mailed_to ilike ${like} or d.title ilike ${like})
				and ${document === undefined ? s`true` : s`d.slug = ${document}`}
			order by k.created_at desc, k.id desc`,
		site()
	]);
	const now = Date.now();
	const standing = rows.map((row) => ({ ...row, state: stateOf(row, zone, now) }));
	const fits = standing.filter((row) => !state || row.state === state);
	const behind = after ? fits.filter(({ made, id }) => made < after.value || (made === after.value && id < after.id)) : fits.slice(offset);
	const shown = behind.slice(0, limit);
	const last = shown.at(-1);
	return {
		items: shown.length ? await views({ ids: shown.map(({ id }) => id) }) : [],
		total: fits.length,
		states: { good: 0, withdrawn: 0, lapsed: 0, 'used-up': 0, ...countsOf(standing) },
		next: last && behind.length > limit ? { value: last.made, id: last.id } : null
	};
}

const countsOf = (keys: readonly { state: KeyState }[]) =>
	Object.fromEntries(keyStates.map((state) => [state, keys.filter((key) => key.state === state).length]));

/** How an instant is written by which the list goes on. */
export const isMade = (value: string): boolean => /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{6}$/.test(value);

const KeyId = Type.String({ format: 'uuid' });
const Change = {
	withdrawn: Type.Optional(Type.Boolean({ description: 'withdraws them, or gives them back' })),
	until: Type.Optional({ ...KeyGiven.properties.until, description: 'their last day, through the whole of it, or an instant; null for no end' })
};
/** One change to many keys, all or none. */
export const KeysChange = Type.Object(
	{ keys: Type.Array(KeyId, { minItems: 1, maxItems: 2000, uniqueItems: true }), ...Change },
	{ additionalProperties: false }
);
/** What puts them back: for each that was changed, what it had. */
export const KeysUndo = Type.Object(
	{
		undo: Type.Array(Type.Object({ id: KeyId, change: Type.Object(Change, { additionalProperties: false }) }, { additionalProperties: false }), {
			maxItems: 2000
		})
	},
	{ additionalProperties: false }
);
type KeyChange = Static<typeof KeysUndo>['undo'][number]['change'];

/**
 * Withdraws keys, gives them back, or gives them another end; all or none. Whoever has a document open by one that is withdrawn is shut out at
 * the next request; one that is given back opens what it opened before, as far as its end and its openings go. Throws `key-unknown`, and
 * `not-valid` for an end in the past.
 */
export async function changeKeys({ keys, ...change }: Static<typeof KeysChange>, actor: string): Promise<Static<typeof KeysUndo>> {
	checkEnd(change.until, (await site()).zone);
	const { undo, missing } = await changeEach(new Map(keys.map((id) => [id, change])), actor, true);
	if (missing) throw new IanuaError('key-unknown');
	return { undo };
}

/** Puts keys back as `changeKeys` found them; one whose document is gone meanwhile stays so. */
export async function undoKeys({ undo }: Static<typeof KeysUndo>, actor: string): Promise<void> {
	await changeEach(new Map(undo.map(({ id, change }) => [id, change])), actor, false);
}

/** Withdraws a key, or gives it back. */
export async function setWithdrawn(id: string, withdrawn: boolean, actor: string): Promise<void> {
	if (!isId(id)) throw new IanuaError('key-unknown');
	await changeKeys({ keys: [id], withdrawn }, actor);
}

async function changeEach(changes: ReadonlyMap<string, KeyChange>, actor: string, all: boolean): Promise<Static<typeof KeysUndo> & { missing: boolean }> {
	return db().transaction(async (tx) => {
		const ids = [...changes.keys()];
		// in one order, so that two who do so wait for each other and not in a ring
		const rows = ids.length ? await tx.select().from(doorKey).where(inArray(doorKey.id, ids)).orderBy(doorKey.id).for('update') : [];
		if (all && rows.length < ids.length) return { undo: [], missing: true };
		const undo: Static<typeof KeysUndo>['undo'] = [];
		for (const row of rows) {
			// only keys that are named were asked for
			const { withdrawn, until } = changes.get(row.id)!;
			const was = { withdrawn: row.withdrawnAt !== null, until: row.untilBound };
			const turned = withdrawn !== undefined && withdrawn !== was.withdrawn;
			const moved = until !== undefined && until !== was.until;
			if (!turned && !moved) continue;
			await tx
				.update(doorKey)
				.set({
					...(turned ? { withdrawnAt: withdrawn ? new Date() : null, withdrawnBy: withdrawn ? actor : null } : {}),
					...(moved ? { untilBound: until } : {})
				})
				.where(eq(doorKey.id, row.id));
			const entry = { actor, kind: 'document', thing: row.documentId } as const;
			const named = { key: row.id, label: row.label };
			if (turned) await writeAudit(tx, { ...entry, ...(withdrawn ? { action: 'key-withdrawn', before: named } : { action: 'key-restored', after: named }) });
			if (moved) await writeAudit(tx, { ...entry, action: 'key-changed', before: { ...named, until: was.until }, after: { ...named, until } });
			undo.push({ id: row.id, change: { ...(turned ? { withdrawn: was.withdrawn } : {}), ...(moved ? { until: was.until } : {}) } });
		}
		return { undo, missing: false };
	});
}
