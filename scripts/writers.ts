// Who writes to which table: only the folder of src/lib/server that it belongs to. A table that stands in no list below, a statement that
// cannot be read, and an exception that is not needed any more are failures too. Reading across folders is free: a join is what a database
// is for, and `scripts/rows.ts` holds what comes out of it (docs/decisions/0026).
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative, sep } from 'node:path';

/** Tables by the folder that writes to them. */
const owned: Record<string, string> = {
	people: 'person session account verification second_factor passkey rate_limit member_group membership attempt api_token invitation',
	access: 'door door_group door_person door_key knock website website_group website_key website_person pass_taken pass_grant',
	documents: 'document document_address saved_filter',
	intake: 'intake source edition edition_page document_text picture',
	placing: 'page revision placement listing side_door former_address missed_address',
	site: 'setting audit',
	http: 'idempotency_key',
	reading: 'stamp ledger reading day_key receipt',
	news: 'news news_wish news_told news_feed',
	readership:
		'reader summed sum_figures sum_page sum_reader sum_readers sum_reason sum_refused sum_robot sum_source progress report_mail first_opening webhook webhook_delivery'
};

/** Files that write elsewhere, and why they must. */
const exceptions: Record<string, { tables: string; why: string }> = {
	'reading/writer.ts': { tables: 'door_key', why: 'an opening by a key with a number takes one of them in the statement that enters it' },
	'readership/sums/day.ts': { tables: '${tx(table)}', why: 'a day is forgotten in each of the tables of sums' },
	'readership/sums/spans.ts': { tables: '${tx(table)}', why: 'the same, for weeks and months' },
	'people/staff.ts': { tables: 'document edition page intake saved_filter', why: 'what somebody made is handed over in the transaction that takes them out' }
};

const schema = readFileSync('src/lib/server/db/schema.ts', 'utf8');
/** The table behind each name that Drizzle's schema exports. */
const tableOf = new Map([...schema.matchAll(/export const (\w+) = \w*[tT]able\(\s*'(\w+)'/g)].map((m) => [m[1]!, m[2]!]));
const ownerOf = new Map(Object.entries(owned).flatMap(([folder, tables]) => tables.split(' ').map((table) => [table, folder] as const)));

const server = join('src', 'lib', 'server');
const faults: string[] = [];
for (const table of tableOf.values()) if (!ownerOf.has(table)) faults.push(`the table ${table} belongs to no folder`);
for (const table of ownerOf.keys()) if (![...tableOf.values()].includes(table)) faults.push(`there is no table ${table}`);

const unused = new Set(Object.entries(exceptions).flatMap(([file, { tables }]) => tables.split(' ').map((table) => `${file} ${table}`)));
let writes = 0;
for (const entry of readdirSync('src', { recursive: true, withFileTypes: true })) {
	if (!entry.isFile() || !/\.(ts|svelte)$/.test(entry.name) || entry.name.endsWith('.test.ts')) continue;
	const path = join(entry.parentPath, entry.name);
	const text = readFileSync(path, 'utf8');
	const file = relative(server, path).split(sep).join('/');
	const write = (table: string | undefined, statement: string) => {
		writes++;
		const allowed = table !== undefined && exceptions[file]?.tables.split(' ').includes(table);
		if (allowed) unused.delete(`${file} ${table}`);
		else if (!table || !ownerOf.has(table)) faults.push(`${path}: what does “${statement.replace(/\s+/g, ' ')}” write to?`);
		else if (!file.startsWith(`${ownerOf.get(table)}/`)) faults.push(`${path} writes to ${table}, which belongs to ${ownerOf.get(table)}`);
	};
	for (const m of text.matchAll(
		/\b(?:insert\s+into|delete\s+from|update)\s+(?:only\s+)?"?(\w+|\$\{[^}]*\})"?(?=\s+(?:as\s+\w+\s*|\w\s+)?(?:\(|set\b|where\b)|\s*`)/g
	))
		write(m[1], m[0]);
	for (const m of text.matchAll(/\b(?:tx|db\(\))\s*\.(?:insert|update|delete)\((\w+)\)/g)) write(tableOf.get(m[1]!), m[0]);
}
for (const exception of unused) faults.push(`this exception is not needed any more: ${exception}`);
if (writes < 100) faults.push(`only ${writes} statements were found that write: this looks in the wrong place`);
for (const fault of faults) console.error(fault);
console.log(`${writes} statements write to ${ownerOf.size} tables, ${faults.length} where they should not`);
process.exit(faults.length ? 1 : 0);
