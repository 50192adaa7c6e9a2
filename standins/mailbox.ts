// A mailbox for trying and testing: takes every mail that Ianua sends and keeps it as a file. The demo shows them under /postbox.
import { mkdirSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { SMTPServer } from 'smtp-server';

/** Listens for SMTP on a loopback port. */
export function startMailbox(folder: string, port: number): Promise<{ stop: () => void }> {
	mkdirSync(folder, { recursive: true });
	let last = 0;
	const smtp = new SMTPServer({
		disabledCommands: ['AUTH', 'STARTTLS'],
		logger: false,
		onData: (stream, _session, done) => {
			const chunks: Buffer[] = [];
			stream.on('data', (chunk: Buffer) => chunks.push(chunk));
			stream.on('end', () => {
				// whole or not at all, and in order also within one millisecond
				const path = join(folder, `${Date.now()}-${String(++last).padStart(6, '0')}`);
				writeFileSync(`${path}.part`, Buffer.concat(chunks));
				renameSync(`${path}.part`, `${path}.eml`);
				done();
			});
		}
	});
	return new Promise((up, fail) => {
		smtp.on('error', fail);
		smtp.listen(port, '127.0.0.1', () => up({ stop: () => smtp.close() }));
	});
}
