// The tables as schema.ts has them are those of the database, column by column, and nothing is left for a migration to do.
import { execFileSync } from 'node:child_process';
import { cpSync, mkdirSync, readdirSync, rmSync } from 'node:fs';
import { is } from 'drizzle-orm';
import { getTableConfig, PgTable } from 'drizzle-orm/pg-core';
import { expect, it } from 'vitest';
import './help';

const { sql } = await import('#server/db/client');
const tables = Object.values(await import('#server/db/schema')).flatMap((value: unknown) => (is(value, PgTable) ? [getTableConfig(value)] : []));

const byName = <T>(rows: readonly T[], name: (row: T) => string) =>
	Object.fromEntries(rows.map((row) => [name(row), row] as const).sort(([a], [b]) => (a < b ? -1 : 1)));

/** Tables of the database, but the partitions of the ledger. */
const there = sql()`c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p') and not c.relispartition`;

it('every column: its name, its type, whether it may be empty, whether it has a default', async () => {
	const rows = await sql()<{ table: string; column: string; type: string; required: boolean; given: boolean }[]>`
		select c.relname as table, a.attname as column, format_type(a.atttypid, a.atttypmod) as type, a.attnotnull as required,
			a.atthasdef or a.attidentity <> '' as given
		from pg_attribute a join pg_class c on c.oid = a.attrelid where ${there} and a.attnum > 0 and not a.attisdropped`;
	const said = tables.flatMap((t) =>
		t.columns.map((column) => ({
			table: t.name,
			column: column.name,
			// times and lengths are said with a space by the one and without by the other
			type: column.getSQLType().replace(' (', '('),
			required: column.notNull,
			given: column.hasDefault || column.generated !== undefined || column.generatedIdentity !== undefined
		}))
	);
	const name = (row: { table: string; column: string }) => `${row.table}.${row.column}`;
	expect(byName(said, name)).toEqual(
		byName(
			rows.map((row) => ({ ...row, type: row.type.replace(/^timestamp\((\d)\)/, 'timestamp($1)') })),
			name
		)
	);
});

it('every index, by its name and whether it is one of a kind', async () => {
	const rows = await sql()<{ table: string; index: string; unique: boolean }[]>`
		select c.relname as table, i.relname as index, x.indisunique as unique from pg_index x join pg_class c on c.oid = x.indrelid join pg_class i on i.oid = x.indexrelid
		where ${there} and not exists (select 1 from pg_constraint k where k.conindid = x.indexrelid)`;
	const said = tables.flatMap((t) => t.indexes.map(({ config }) => ({ table: t.name, index: config.name!, unique: config.unique })));
	expect(byName(said, (i) => i.index)).toEqual(byName([...rows], (i) => i.index));
});

it('every reference to another table, with what becomes of it', async () => {
	const rows = await sql()<{ of: string; to: string; then: string }[]>`
		select k.conrelid::regclass || '(' || (select string_agg(attname, ',' order by attnum) from pg_attribute where attrelid = k.conrelid and attnum = any(k.conkey)) || ')' as of,
			k.confrelid::regclass || '(' || (select string_agg(attname, ',' order by attnum) from pg_attribute where attrelid = k.confrelid and attnum = any(k.confkey)) || ')' as to,
			case k.confdeltype when 'c' then 'cascade' when 'n' then 'set null' when 'a' then 'no action' else k.confdeltype::text end as then
		from pg_constraint k join pg_class c on c.oid = k.conrelid where k.contype = 'f' and ${there}`;
	const said = tables.flatMap((t) =>
		t.foreignKeys.map((key) => {
			const { columns, foreignColumns, foreignTable } = key.reference();
			const list = (columns: readonly { name: string }[]) => `(${columns.map((c) => c.name).join(',')})`;
			return { of: t.name + list(columns), to: getTableConfig(foreignTable).name + list(foreignColumns), then: key.onDelete ?? 'no action' };
		})
	);
	expect(byName(said, (k) => k.of)).toEqual(byName([...rows], (k) => k.of));
});

it('a migration has nothing to do', () => {
	// drizzle-kit takes a folder of the working directory
	const out = '.test/generate';
	rmSync(out, { recursive: true, force: true });
	mkdirSync('.test', { recursive: true });
	cpSync('drizzle', out, { recursive: true });
	const before = readdirSync(out).sort();
	const said = execFileSync(
		'node',
		['node_modules/drizzle-kit/bin.cjs', 'generate', '--dialect', 'postgresql', '--schema', 'src/lib/server/db/schema.ts', '--out', out],
		{
			encoding: 'utf8',
			stdio: ['ignore', 'pipe', 'pipe']
		}
	);
	expect(said).toContain('nothing to migrate');
	expect(readdirSync(out).sort()).toEqual(before);
	rmSync(out, { recursive: true });
});
