// The stand-in mailbox of the demo, to look at: every mail that was sent, newest first.
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { settings } from '../settings';

export interface KeptMail {
	readonly name: string;
	readonly at: string;
	readonly from: string;
	readonly to: string;
	readonly subject: string;
	readonly text: string;
}

/** Quoted-printable (RFC 2045, 6.7). */
const quotedPrintable = (text: string) =>
	Buffer.from(
		text.replace(/=\r?\n/g, '').replace(/=([0-9A-F]{2})/gi, (_, hex: string) => String.fromCharCode(Number.parseInt(hex, 16))),
		'latin1'
	).toString('utf8');

/** Encoded words in header fields (RFC 2047). */
const words = (field: string) =>
	field
		.replace(/(\?=)\s+(=\?)/g, '$1$2')
		.replace(/=\?utf-8\?(q|b)\?([^?]*)\?=/gi, (_, how: string, text: string) =>
			how.toLowerCase() === 'b' ? Buffer.from(text, 'base64').toString('utf8') : quotedPrintable(text.replaceAll('_', ' '))
		);

/** Reads a mail as our own sender writes it: plain text. */
export function readMail(name: string, source: string): KeptMail {
	const end = /\r?\n\r?\n/.exec(source)?.index ?? source.length;
	const head = source.slice(0, end).replace(/\r?\n[ \t]+/g, ' ');
	const field = (key: string) => words(new RegExp(`^${key}:\\s*(.*)$`, 'im').exec(head)?.[1]?.trim() ?? '');
	const body = source.slice(end).replace(/^\s+/, '');
	const encoding = field('Content-Transfer-Encoding').toLowerCase();
	const text =
		encoding === 'quoted-printable'
			? quotedPrintable(body)
			: encoding === 'base64'
				? Buffer.from(body, 'base64').toString('utf8')
				: Buffer.from(body, 'latin1').toString('utf8');
	return { name, at: new Date(Number(name.split('-')[0]) || 0).toISOString(), from: field('From'), to: field('To'), subject: field('Subject'), text };
}

/** The mails, newest first, at most `limit`; null where there is no such mailbox. */
export async function postbox(limit = 200): Promise<KeptMail[] | null> {
	const { IANUA_POSTBOX } = settings();
	if (!IANUA_POSTBOX) return null;
	const names = (await readdir(IANUA_POSTBOX).catch(() => []))
		.filter((n) => n.endsWith('.eml'))
		.sort()
		.reverse()
		.slice(0, limit);
	return Promise.all(names.map(async (name) => readMail(name, await readFile(join(IANUA_POSTBOX, name), 'latin1'))));
}
