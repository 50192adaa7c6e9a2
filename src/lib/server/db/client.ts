// The one pool of connections, the migrations, and the ledger's partitions.
import { drizzle, type PostgresJsDatabase } from 'drizzle-orm/postgres-js';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { migrate } from 'drizzle-orm/postgres-js/migrator';
import postgres from 'postgres';
import packageJson from '../../../../package.json' with { type: 'json' };
import { migrations } from '../home';
import { settings } from '../settings';
import { closeChanges } from './changes';
import { theRow } from './rows';
import * as schema from './schema';

export type Database = PostgresJsDatabase<typeof schema>;
/** A transaction, or the database itself: what a query needs. */
export type Queryable = Database | Parameters<Parameters<Database['transaction']>[0]>[0];

/**
 * The list and its counts hold ten thousand rows at a time in memory, which the usual 4 MB would send to disk. All our queries are
 * short: compiling them costs more than it saves. A title counts as like what was asked for, where nothing fits it, from 45 % of its letters
 * in threes on.
 */
const connection = { application_name: 'ianua', work_mem: '32MB', jit: 'off', 'pg_trgm.word_similarity_threshold': '0.45' };

/** Seconds to wait before a lost connection is made again: readers wait for it. */
const backoff = (tries: number): number => Math.min(0.05 * 2 ** tries, 1);

/** A day is a text (YYYY-MM-DD) everywhere, an instant a Date. */
const asText = (value: string): string => value;
const types = { day: { to: 1082, from: [1082], serialize: asText, parse: asText } };

/** A connection that nobody needs is given back after so many seconds. */
const idleSeconds = 60;

/** A pool of at most so many connections, `more` for all of them. */
function poolOf(max: number, more: Record<string, number> = {}): postgres.Sql {
	const options = { max, idle_timeout: idleSeconds, onnotice: () => {}, connection: { ...connection, ...more }, backoff, types };
	return postgres(settings().IANUA_DATABASE_URL, options);
}

let client: postgres.Sql | undefined;
let database: Database | undefined;

/** Raw SQL, for the queries that Drizzle cannot say well. Not within a transaction of `db()`: it would wait for a second connection. */
export function sql(): postgres.Sql {
	return (client ??= poolOf(settings().IANUA_CONNECTIONS));
}

/** Drizzle, on the same connections. */
export function db(): Database {
	return (database ??= drizzleOn(sql()));
}

/** Drizzle has its client hand over times and JSON as they come, and reads them by the schema; raw SQL goes on reading them as before. */
function drizzleOn(pool: postgres.Sql): Database {
	const { parsers, serializers } = pool.options;
	const before = [parsers, serializers].map((all) => ({ all, was: { ...all } }));
	const made = drizzle(pool, { schema });
	for (const { all, was } of before) {
		for (const type of Object.keys(all)) Reflect.deleteProperty(all, type);
		Object.assign(all, was);
	}
	// what Drizzle sends is JSON already
	const json = (value: unknown) => (typeof value === 'string' ? value : JSON.stringify(value));
	Object.assign(serializers, { 114: json, 3802: json });
	return made;
}

/**
 * For finds alone: a few connections, so that however many look for something at once, others have theirs; and a statement that takes longer
 * than this is ended (ms).
 */
const findWithin = 10_000;
let finderClient: postgres.Sql | undefined;
/** The connections of find alone: a slow search leaves those of all else free. */
export function finder(): postgres.Sql {
	return (finderClient ??= poolOf(4, { statement_timeout: findWithin }));
}

const migrationLock = 4_173_001;

/** Migrations of this version that the database has not had (how many), and whether it has had any of a newer version. */
export async function appliedMigrations(): Promise<{ waiting: number; newer: boolean }> {
	const { there } = theRow(await sql()<{ there: boolean }[]>`select to_regclass('drizzle.__drizzle_migrations') is not null as there`);
	const rows = there ? await sql()<{ at: string }[]>`select created_at::text as at from drizzle.__drizzle_migrations` : [];
	const applied = new Set(rows.map(({ at }) => Number(at)));
	const ours = readMigrationFiles({ migrationsFolder: migrations }).map(({ folderMillis }) => folderMillis);
	return { waiting: ours.filter((at) => !applied.has(at)).length, newer: Math.max(0, ...applied) > Math.max(...ours) };
}

/** Brings the database up to date; servers that start at once take turns. throws in a sentence where a newer version has done so. */
export async function migrateDatabase(): Promise<void> {
	const one = postgres(settings().IANUA_DATABASE_URL, { max: 1, onnotice: () => {} });
	try {
		await one`select pg_advisory_lock(${migrationLock})`;
		if ((await appliedMigrations()).newer)
			throw new Error(
				`The database was brought up to date by a newer version of Ianua than this one, ${packageJson.version}. Start that version, or restore a backup from before.`
			);
		await migrate(drizzle(one), { migrationsFolder: migrations });
		await one`select pg_advisory_unlock(${migrationLock})`;
	} finally {
		await one.end();
	}
	await ensureLedgerMonths(new Date());
}

/** Partitions for last month, this one and the next two. */
export async function ensureLedgerMonths(now: Date): Promise<void> {
	for (const offset of [-1, 0, 1, 2]) {
		const day = new Date(Date.UTC(now.getUTCFullYear(), now.getUTCMonth() + offset, 1)).toISOString().slice(0, 10);
		await sql()`select ledger_month(${day}::date)`;
	}
}

/** Ends all connections: at shutdown, and at the end of scripts and tests. */
export async function closeDatabase(): Promise<void> {
	await Promise.all([client?.end({ timeout: 5 }), finderClient?.end({ timeout: 5 }), closeChanges()]);
	client = finderClient = database = undefined;
}
