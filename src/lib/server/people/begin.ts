// The first visit to an empty site makes its owner. Whoever started the server proves to be the one who comes, by a code it printed.
import { randomInt, timingSafeEqual } from 'node:crypto';
import { rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { sql } from '../db/client';
import { settings } from '../settings';
import { drop, keepOnce } from '../site/kept';
import { hasOwner } from './directory';

/** Letters and digits that nobody mistakes for each other. */
const letters = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';
const newCode = () => Array.from({ length: 9 }, (_, i) => (i === 4 ? '-' : letters[randomInt(letters.length)])).join('');

/** Where this server keeps the code for whoever started it. */
const codeFile = () => join(settings().IANUA_DATA, 'begin-code');

async function keptCode(): Promise<string | null> {
	const [row] = await sql()<{ code: string }[]>`select value ->> 'code' as code from setting where key = 'begin'`;
	return row?.code ?? null;
}

/** Where there is no owner yet: makes the code, once for all servers, prints it, and keeps it in the data folder. */
export async function offerBeginCode(): Promise<void> {
	if (await hasOwner()) return rm(codeFile(), { force: true });
	await keepOnce('begin', { code: newCode() });
	// it was written just now where there was none
	const code = (await keptCode())!;
	await writeFile(codeFile(), `${code}\n`, { mode: 0o600 });
	console.log(`The site has no owner yet. The first visit asks for this code: ${code}`);
}

/** Whether a code is the one that was printed; spaces, dashes and small letters do not matter. */
export async function isBeginCode(given: string): Promise<boolean> {
	const plain = (text: string) => Buffer.from(text.toUpperCase().replace(/[^A-Z0-9]/g, ''));
	const kept = await keptCode();
	if (kept === null) return false;
	const [a, b] = [plain(given), plain(kept)];
	return a.length === b.length && timingSafeEqual(a, b);
}

/** The code has done what it was for. */
export async function dropBeginCode(): Promise<void> {
	await drop('begin');
	await rm(codeFile(), { force: true });
}
