// By what readers without a name are told apart (core/readership/settings): a cookie they agreed to, or a mark that holds for a day.
import { createHmac, randomBytes, randomUUID } from 'node:crypto';
import { dayOf } from '#core/access/hours';
import { dayAfter } from '#core/readership/period';
import { cutAddress, keptOf, readershipOf, type Nameless } from '#core/readership/settings';
import { sql } from '../db/client';
import { theRow } from '../db/rows';
import { cookieOf } from '../people/who';
import { site } from '../site/site';

export const readerCookie = 'ianua_reader';
/** Whether somebody agreed to the reader cookie: yes or no. */
export const agreedCookie = 'ianua_remember';

/** The random id in a visitor's reader cookie: it says that two requests are one reader's, and nothing else. */
export const newReaderId = (): string => randomUUID();

type Header = (name: string) => string | null;

/** What is kept of the browser that asks. */
export async function keptOfBrowser(header: Header): Promise<Nameless> {
	const { readership } = await site();
	return keptOf(readershipOf(readership).nameless, { gpc: header('sec-gpc'), dnt: header('dnt') });
}

/**
 * The name of a browser, and whether the ledger may have it. Where nothing is kept, a reading still needs one to know what belongs to it;
 * it is gone when the reading is.
 */
export async function browserOf(header: Header, address: string): Promise<{ name: string; kept: boolean }> {
	const kept = await keptOfBrowser(header);
	const cookie = kept === 'cookie' ? cookieOf(header('cookie'), readerCookie) : null;
	if (cookie && /^[0-9a-f-]{36}$/.test(cookie)) return { name: `c:${cookie}`, kept: true };
	const { zone } = await site();
	const mark = createHmac('sha256', await dayKey(dayOf(Date.now(), zone)))
		.update(`${cutAddress(address)}\n${header('user-agent') ?? ''}`)
		.digest('hex');
	return { name: `a:${mark.slice(0, 24)}`, kept: kept !== 'nothing' };
}

let known: { day: string; key: string } | undefined;

/** The key of a day: random, the same for every server, and thrown away when the day is over. */
async function dayKey(day: string): Promise<string> {
	if (known?.day === day) return known.key;
	const s = sql();
	await s`insert into day_key (day, key) values (${day}, ${randomBytes(32).toString('base64')}) on conflict do nothing`;
	const row = theRow(await s<{ key: string }[]>`select key from day_key where day = ${day}`);
	await s`delete from day_key where day < ${dayAfter(day, -1)}`;
	known = { day, key: row.key };
	return known.key;
}
