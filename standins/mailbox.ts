// A mailbox for trying and testing: takes every mail that Ianua sends, keeps it as a file, and shows them on a page of its own.
import { createServer, type Server } from 'node:http';
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { SMTPServer } from 'smtp-server';

const escaped = (text: string) => text.replace(/[&<>]/g, (c) => `&#${c.charCodeAt(0)};`);

/** Quoted-printable (RFC 2045, 6.7) as far as plain mails use it. */
const decoded = (text: string) =>
	Buffer.from(
		text.replace(/=\r?\n/g, '').replace(/=([0-9A-F]{2})/g, (_, hex: string) => String.fromCharCode(Number.parseInt(hex, 16))),
		'latin1'
	).toString('utf8');

/** Listens for SMTP on one loopback port and for browsers on another. */
export function startMailbox(folder: string, ports: { smtp: number; web: number }): Promise<{ stop: () => void }> {
	mkdirSync(folder, { recursive: true });
	let last = 0;
	const smtp = new SMTPServer({
		disabledCommands: ['AUTH', 'STARTTLS'],
		logger: false,
		onData: (stream, _session, done) => {
			const chunks: Buffer[] = [];
			stream.on('data', (chunk: Buffer) => chunks.push(chunk));
			stream.on('end', () => {
				writeFileSync(join(folder, `${Date.now()}-${++last}.eml`), Buffer.concat(chunks));
				done();
			});
		}
	});
	const web: Server = createServer((_request, response) => {
		const mails = readdirSync(folder)
			.filter((name) => name.endsWith('.eml'))
			.sort()
			.reverse()
			.map((name) => decoded(readFileSync(join(folder, name), 'latin1')));
		response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' });
		response.end(
			`<!doctype html><meta charset="utf-8"><title>Mailbox</title><h1>Mailbox: ${mails.length}</h1>${mails.map((m) => `<pre style="border-top:1px solid #999;padding:1em;white-space:pre-wrap">${escaped(m).replace(/https?:\/\/\S+/g, (a) => `<a href="${a}">${a}</a>`)}</pre>`).join('')}`
		);
	});
	return new Promise((up, fail) => {
		smtp.on('error', fail);
		smtp.listen(ports.smtp, '127.0.0.1', () =>
			web.listen(ports.web, '127.0.0.1', () =>
				up({
					stop: () => {
						smtp.close();
						web.close();
					}
				})
			)
		);
	});
}
