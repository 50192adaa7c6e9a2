// A site written out in open formats (core/upkeep/portable): every file of an export, one after the other, as of one moment.
import { createWriteStream } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import Papa from 'papaparse';
import type postgres from 'postgres';
import packageJson from '../../../../package.json' with { type: 'json' };
import { IanuaError } from '#core/errors';
import { exportFormat, exportLines, exportReadme, type ExportLine, type ExportPart } from '#core/upkeep/portable';
import { db, sql } from '../db/client';
import { theRow } from '../db/rows';
import { mostZippedBytes } from '../http/zip';
import { writeAudit } from '../site/audit';
import { objects, originalName } from '../store/store';
import { leftOutBy } from '../readership/ledger';
import { settings } from '../settings';
import { site } from '../site/site';

/** One file of an export: where it stands in it, and its bytes. */
export interface ExportFile {
	readonly name: string;
	readonly bytes: AsyncIterable<Uint8Array>;
}

type Snapshot = postgres.TransactionSql | postgres.ReservedSql;
type Line = { line: string };

/** Lines that are fetched at once. */
const atOnce = 500;
const iso = (s: Snapshot, column: postgres.Fragment | string) =>
	typeof column === 'string'
		? s`to_char(${s(column)} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`
		: s`to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;

/** A door in the words of the API: slugs, mail addresses and paths for ids. */
const doorJson = (s: Snapshot) => s`
	door_json(d.id) || jsonb_build_object(
		'groups', coalesce((select jsonb_agg(g.slug order by g.slug) from door_group x join member_group g on g.id = x.group_id where x.door_id = d.id), '[]'),
		'people', coalesce((select jsonb_agg(p.email order by p.email) from door_person x join person p on p.id = x.person_id where x.door_id = d.id), '[]'),
		'follows', (select path from page where id = d.follows_page))`;

/** The statement behind each part: a JSON value a row, in a column `line`, in the order that an export has. */
const queries: { readonly [P in ExportPart]: (s: Snapshot, zone: string) => postgres.PendingQuery<Line[]> } = {
	groups: (s) => s<Line[]>`
		select json_build_object('slug', slug, 'name', name, 'description', description, 'createdAt', ${iso(s, 'created_at')})::text as line from member_group order by slug`,
	people: (s) => s<Line[]>`
		select json_build_object('email', p.email, 'name', p.name, 'role', p.role, 'suspended', p.suspended, 'createdAt', ${iso(s, s`p.created_at`)},
			'memberships', coalesce((select json_agg(json_build_object('group', g.slug, 'from', m.from_day, 'until', m.until_day) order by g.slug, m.from_day, m.until_day)
				from membership m join member_group g on g.id = m.group_id where m.person_id = p.id), '[]'))::text as line
		from person p where p.closed_at is null order by p.email`,
	pictures: (s) => s<Line[]>`
		select json_build_object('sha256', sha256, 'file', 'pictures/' || sha256, 'width', width, 'height', height)::text as line from picture order by sha256`,
	documents: (s) => s<Line[]>`
		select json_build_object('slug', o.slug, 'title', o.title, 'description', o.description, 'folder', o.folder, 'topics', o.topics, 'fields', o.fields,
			'review', case when o.review_on is not null then json_build_object('on', o.review_on, 'by', (select email from person where id = o.review_by and closed_at is null)) end,
			'language', o.language, 'cover', o.cover, 'coverFile', 'pictures/' || (o.cover ->> 'sha256'), 'coverAlt', o.cover_alt, 'reading', o.reading, 'receipt', o.receipt,
			'receipts', coalesce((select json_agg(json_build_object('person', p.email, 'edition', e.number, 'at', ${iso(s, s`r.at`)}) order by e.number, p.email)
				from receipt r join person p on p.id = r.person_id join edition e on e.id = r.edition_id where r.document_id = o.id and p.closed_at is null), '[]'),
			'createdAt', ${iso(s, s`o.created_at`)}, 'setAsideAt', ${iso(s, s`o.set_aside_at`)},
			'addresses', coalesce((select json_agg(a.slug order by a.slug) from document_address a where a.document_id = o.id and a.slug <> o.slug), '[]'),
			'formerAddresses', coalesce((select json_agg(json_build_object('path', f.path, 'asked', f.asked, 'lastAt', ${iso(s, s`f.last_at`)}, 'lastFrom', f.last_from) order by f.path)
				from former_address f where f.document_id = o.id), '[]'),
			'source', (select json_build_object('url', url, 'watch', watch) from source where document_id = o.id),
			'door', ${doorJson(s)},
			'editions', (select json_agg(json_build_object('number', e.number,
				'file', 'files/' || o.slug || case when e.id = o.edition_id then '' else '.' || e.number end || '.pdf', 'fileName', e.file_name, 'sha256', e.sha256,
				'bytes', e.bytes, 'origin', e.origin, 'createdAt', ${iso(s, s`e.created_at`)}, 'inForce', e.id = o.edition_id) order by e.number) from edition e where e.document_id = o.id))::text as line
		from document o join door d on d.id = o.door_id where o.gone_at is null order by o.slug`,
	pages: (s) => s<Line[]>`
		select json_build_object('path', o.path, 'title', o.title, 'layout', o.layout, 'language', o.language, 'navigation', o.navigation, 'label', o.label,
			'createdAt', ${iso(s, s`o.created_at`)}, 'setAsideAt', ${iso(s, s`o.set_aside_at`)}, 'door', ${doorJson(s)},
			'draft', json_build_object('title', o.draft_title, 'content', o.draft),
			'revisions', coalesce((select json_agg(json_build_object('number', r.number, 'title', r.title, 'content', r.content, 'publishedAt', ${iso(s, s`r.published_at`)}) order by r.number)
				from revision r where r.page_id = o.id), '[]'),
			'published', (select number from revision where id = o.published_id),
			'sideDoors', coalesce((select json_agg(json_build_object('document', x.slug, 'why', m.why) order by x.slug)
				from side_door m join document x on x.id = m.document_id where m.page_id = o.id and x.gone_at is null), '[]'))::text as line
		from page o join door d on d.id = o.door_id order by o.path`,
	keys: (s) => s<Line[]>`
		select json_build_object('id', k.id, 'document', o.slug, 'label', k.label, 'hash', k.hash, 'passwordHash', k.password_hash,
			'allow', json_build_object('save', k.allow_save, 'print', k.allow_print), 'until', k.until_bound, 'openings', k.openings, 'used', k.used, 'mailedTo', k.mailed_to,
			'createdAt', ${iso(s, s`k.created_at`)}, 'withdrawnAt', ${iso(s, s`k.withdrawn_at`)})::text as line
		from door_key k join document o on o.id = k.document_id where o.gone_at is null order by k.created_at, k.id`,
	// readers get the number in which they first come: within one export the same reader has the same one
	ledger: (s, zone) => s<Line[]>`
		with number as (
			select l.reader, row_number() over (order by min(l.at), min(l.id::text)) as n from ledger l join document d on d.id = l.document_id where d.gone_at is null group by l.reader)
		select json_build_object('id', m.id, 'at', ${iso(s, s`m.at`)}, 'kind', m.kind, 'document', o.slug, 'edition', e.number, 'reading', m.reading_id, 'reader', r.n,
			'who', m.who, 'person', p.email, 'key', m.key_id, 'reason', m.reason,
			'source', json_build_object('kind', m.source_kind, 'page', g.path, 'placement', m.placement_id, 'site', m.outside),
			'staff', m.staff, 'robot', m.robot, 'preload', m.preload, 'stamp', m.stamp, 'pages', m.attention, 'device', m.device, 'controlled', m.controlled, 'leftOut', ${leftOutBy(s, zone)})::text as line
		from ledger m join number r on r.reader = m.reader join document o on o.id = m.document_id join edition e on e.id = m.edition_id
			left join person p on p.id = m.person_id and p.closed_at is null left join page g on g.id = m.page_id
		where o.gone_at is null order by m.at, m.id`
};

/** The columns of the tables that go along, each from a line of its part. */
const tables: { readonly [P in 'documents' | 'people' | 'keys' | 'ledger']: (line: ExportLine<P>) => Record<string, unknown>[] } = {
	documents: (d) => [
		{
			document: d.slug,
			title: d.title,
			description: d.description,
			folder: d.folder,
			topics: d.topics.join('; '),
			language: d.language,
			door: d.door.position,
			groups: d.door.groups.join('; '),
			file: d.editions.find((e) => e.inForce)?.file,
			file_name: d.editions.find((e) => e.inForce)?.fileName,
			edition: d.editions.find((e) => e.inForce)?.number,
			bytes: d.editions.find((e) => e.inForce)?.bytes,
			brought_in: d.createdAt,
			set_aside: d.setAsideAt,
			former_addresses: d.formerAddresses.map(({ path }) => path).join('; '),
			...Object.fromEntries(Object.entries(d.fields).map(([name, value]) => [`field_${name}`, value]))
		}
	],
	people: ({ email, name, role, memberships }) =>
		(memberships.length ? memberships : [{ group: '', from: null, until: null }]).map(({ group, from, until }) => ({ email, name, role, group, from, until })),
	keys: (k) => [
		{
			key: k.id,
			document: k.document,
			label: k.label,
			save: k.allow.save,
			print: k.allow.print,
			until: k.until,
			openings: k.openings,
			used: k.used,
			mailed_to: k.mailedTo,
			created: k.createdAt,
			withdrawn: k.withdrawnAt
		}
	],
	ledger: (e) => [
		{
			at: e.at,
			kind: e.kind,
			document: e.document,
			edition: e.edition,
			reader: e.reader,
			who: e.who,
			person: e.person,
			key: e.key,
			reason: e.reason,
			source: e.source.kind,
			page: e.source.page,
			site: e.source.site,
			staff: e.staff,
			robot: e.robot,
			preload: e.preload,
			left_out: e.leftOut,
			device: e.device,
			read_seconds: e.pages?.reduce((sum, { seconds }) => sum + seconds, 0)
		}
	]
};

/** The lines of a part, in parts of the result. */
async function* linesOf(s: Snapshot, part: ExportPart): AsyncGenerator<string> {
	const { zone } = await site();
	for await (const rows of queries[part](s, zone).cursor(atOnce)) for (const { line } of rows) yield line;
}

async function* jsonLines(s: Snapshot, part: ExportPart): AsyncGenerator<Uint8Array> {
	let ready = '';
	for await (const line of linesOf(s, part)) {
		ready += `${line}\n`;
		if (ready.length < 1 << 16) continue;
		yield Buffer.from(ready);
		ready = '';
	}
	yield Buffer.from(ready);
}

/** What is in fields of some documents only is a column of all: the table is known once all of its lines are. */
async function* table(s: Snapshot, part: keyof typeof tables, columns: readonly string[]): AsyncGenerator<Uint8Array> {
	yield Buffer.from(`\ufeff${columns.join(',')}\r\n`);
	for await (const line of linesOf(s, part)) {
		// what queries write is what the schema says: a test holds the two against each other
		const rows = (tables[part] as (line: unknown) => Record<string, unknown>[])(JSON.parse(line));
		const cells = rows.map((row) => columns.map((name) => row[name] ?? ''));
		yield Buffer.from(`${Papa.unparse(cells, { newline: '\r\n', escapeFormulae: true })}\r\n`);
	}
}

const columnsOf = {
	documents: 'document title description folder topics language door groups file file_name edition bytes brought_in set_aside former_addresses',
	people: 'email name role group from until',
	keys: 'key document label save print until openings used mailed_to created withdrawn',
	ledger: 'at kind document edition reader who person key reason source page site staff robot preload left_out device read_seconds'
};

const one = (text: string): AsyncIterable<Uint8Array> => Readable.from([Buffer.from(text)]);

/** The bytes of a checksum in the store. Throws where they are not there. */
async function* kept(sha256: string): AsyncGenerator<Uint8Array> {
	const stream = await objects().read(originalName(sha256));
	if (!stream) throw new Error(`The file ${sha256} is missing from the store. ianua check says which documents it belongs to.`);
	yield* stream as AsyncIterable<Buffer>;
}

/**
 * The files of an export, in order. They are read in one snapshot, and each must be read to its end before the next is asked for. The snapshot is
 * let go once all are through, or when whoever reads stops.
 */
export async function* exportFiles(): AsyncGenerator<ExportFile> {
	const s = await sql().reserve();
	try {
		await s`begin isolation level repeatable read read only`;
		const { at } = theRow(await s<{ at: Date }[]>`select now() as at`);
		const counts = theRow(
			await s<Record<ExportPart, number>[]>`
			select (select count(*)::int from member_group) as groups, (select count(*)::int from person where closed_at is null) as people, (select count(*)::int from picture) as pictures,
				(select count(*)::int from document where gone_at is null) as documents, (select count(*)::int from page) as pages,
				(select count(*)::int from door_key k join document d on d.id = k.document_id where d.gone_at is null) as keys,
				(select count(*)::int from ledger m join document d on d.id = m.document_id where d.gone_at is null) as ledger`
		);
		const formerPatterns = await s<{ path: string; asked: number; lastAt: string | null; lastFrom: string | null }[]>`
			select path, asked, ${iso(s, s`last_at`)} as "lastAt", last_from as "lastFrom" from former_address where document_id is null order by path`;
		const head = { format: exportFormat, version: packageJson.version, at: at.toISOString(), origin: settings().IANUA_ORIGIN, counts, formerPatterns };
		yield { name: 'README.txt', bytes: one(exportReadme) };
		yield { name: 'export.json', bytes: one(`${JSON.stringify(head, null, '\t')}\n`) };
		const [row] = await s<{ value: Record<string, unknown> }[]>`select value from setting where key = 'site'`;
		yield { name: 'settings.json', bytes: one(`${JSON.stringify(row?.value ?? {}, null, '\t')}\n`) };
		yield { name: 'schema.json', bytes: one(`${JSON.stringify(exportLines, null, '\t')}\n`) };
		for (const part of Object.keys(exportLines) as ExportPart[]) yield { name: `${part}.jsonl`, bytes: jsonLines(s, part) };
		const fields = await s<{ name: string }[]>`select distinct jsonb_object_keys(fields) as name from document where gone_at is null order by 1`;
		for (const part of Object.keys(tables) as (keyof typeof tables)[]) {
			const columns = columnsOf[part].split(' ');
			yield { name: `${part}.csv`, bytes: table(s, part, part === 'documents' ? [...columns, ...fields.map(({ name }) => `field_${name}`)] : columns) };
		}
		const named = await s<{ name: string; sha256: string }[]>`
			select 'files/' || o.slug || case when e.id = o.edition_id then '' else '.' || e.number end || '.pdf' as name, e.sha256
			from edition e join document o on o.id = e.document_id where o.gone_at is null
			union select 'pictures/' || sha256, sha256 from picture
			union select 'pictures/' || (cover ->> 'sha256'), cover ->> 'sha256' from document where gone_at is null and cover ->> 'sha256' is not null
			order by 1`;
		for (const { name, sha256 } of named) yield { name, bytes: kept(sha256) };
	} finally {
		await s`rollback`.catch(() => {});
		s.release();
	}
}

/** How large everything is that a zip would have beside words, bytes. */
export async function exportBytes(): Promise<number> {
	const { bytes } = theRow(
		await sql()<
			{ bytes: number }[]
		>`select coalesce(sum(e.bytes), 0)::float8 as bytes from edition e join document d on d.id = e.document_id where d.gone_at is null`
	);
	return bytes;
}

/** Writes into the trail that everything is taken out. Throws `not-valid` where it is more than one zip can hold. */
export async function noteExport(actor: string): Promise<void> {
	if ((await exportBytes()) > mostZippedBytes)
		throw new IanuaError('not-valid', {
			detail: 'everything is more than 4 GB together, which no zip holds: ianua export writes it into a folder of the server'
		});
	await db().transaction((tx) => writeAudit(tx, { actor, action: 'exported', kind: 'site', thing: actor }));
}

/** Writes an export into a folder, which must be new or empty. Gives how many files and bytes it has. */
export async function exportInto(folder: string, say: (line: string) => void = () => {}): Promise<{ files: number; bytes: number }> {
	let [files, bytes] = [0, 0];
	for await (const file of exportFiles()) {
		const path = join(folder, file.name);
		await mkdir(dirname(path), { recursive: true, mode: 0o700 });
		const counted = Readable.from(
			(async function* () {
				for await (const chunk of file.bytes) {
					bytes += chunk.length;
					yield chunk;
				}
			})()
		);
		await pipeline(counted, createWriteStream(path, { mode: 0o600 }));
		files++;
		if (files % 500 === 0) say(`${files} files written`);
	}
	return { files, bytes };
}
