// Figures of the whole site for /metrics, asked for when that is: how far behind the sums are, what waits, how much room there is.
import { statfs } from 'node:fs/promises';
import { sql } from '../db/client';
import { measured } from '../metrics';
import { waitingLines } from '../reading/writer';
import { settings } from '../settings';

const plain = (value: number) => [[{}, value]] as const;

measured('ianua_ledger_waiting', 'entries of this process that wait to be written', [], () => Promise.resolve(plain(waitingLines())));

measured('ianua_sums_behind_seconds', 'how long ago the sums of reports were brought up to date', [], async () => {
	const rows = await sql()<{ behind: number }[]>`select extract(epoch from now() - until)::float8 as behind from summed`;
	return rows.map(({ behind }) => [{}, behind]);
});

measured('ianua_jobs', 'jobs by queue and state', ['queue', 'state'], async () => {
	const rows = await sql()<{ name: string; state: string; n: number }[]>`
		select name, state::text as state, count(*)::int as n from pgboss.job where name not like '\_\_%' and state in ('created', 'retry', 'active', 'failed') group by name, state`;
	return rows.map(({ name, state, n }) => [{ queue: name, state }, n]);
});

measured('ianua_job_oldest_seconds', 'how long the job has waited that waits longest, by queue', ['queue'], async () => {
	const rows = await sql()<{ name: string; age: number }[]>`
		select name, extract(epoch from now() - min(greatest(created_on, start_after)))::float8 as age from pgboss.job
		where name not like '\_\_%' and state in ('created', 'retry') and start_after <= now() group by name`;
	return rows.map(({ name, age }) => [{ queue: name }, age]);
});

measured('ianua_uploads', 'uploads under way, and files that have arrived and are not taken in', ['state'], async () => {
	const rows = await sql()<{ state: string; n: number }[]>`
		select state, count(*)::int as n from intake where state = 'uploading' or (state = 'checking' and document_id is null) group by state`;
	return rows.map(({ state, n }) => [{ state }, n]);
});

measured('ianua_webhooks_waiting', 'messages to other programs that wait to be sent', [], async () => {
	const rows = await sql()<{ n: number }[]>`select count(*)::int as n from webhook_delivery where delivered_at is null and next_at is not null`;
	return rows.map(({ n }) => [{}, n]);
});

measured('ianua_database_bytes', 'room that the database takes', [], async () => {
	const rows = await sql()<{ bytes: number }[]>`select pg_database_size(current_database())::float8 as bytes`;
	return rows.map(({ bytes }) => [{}, bytes]);
});

measured('ianua_files_free_bytes', 'room left where this machine writes files', [], async () => {
	const { bavail, bsize } = await statfs(settings().files);
	return plain(bavail * bsize);
});
