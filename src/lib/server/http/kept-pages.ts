// Pages of the site that are sent again as they were made, to whoever comes with the same: until something changes (db/changes.ts), hours begin or end,
// or the day does. Not for staff, keys and tokens, nor where an address asks for something. Routes say in the guard's table which pages these are.
import Negotiator from 'negotiator';
import { createHash } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';
import { groupsAt } from '#core/access/decide';
import { dayOf, spanOf } from '#core/access/hours';
import { nextTurn } from '../access/hours';
import { holdsKeys } from '../access/keys';
import { Cache } from '../db/cache';
import { newId } from '../id';
import { log } from '../log';
import { passCookie } from '../access/passes';
import { callerOf, sessionTokenOf } from '../people/who';
import { site } from '../site/site';

/** The field by which kit's answer says that it may be kept, and until when at most (ms since the epoch, or Infinity); it goes to nobody. */
export const sameField = 'x-ianua-same';

/** Bytes in each of the codings in which a page is kept. */
interface Page {
	readonly headers: readonly (readonly [string, string])[];
	readonly etag: string;
	readonly bodies: Readonly<Record<'br' | 'gzip' | 'identity', Buffer>>;
}

const sizeOf = ({ bodies }: Page) => bodies.br.length + bodies.gzip.length + bodies.identity.length + 2000;
/** In bytes. The line is asked each time: a door that is shut on another server is shut here too, at once. */
const cache = new Cache<Page>({ most: 48_000_000, weigh: sizeOf, within: 0 });

/** Longest address, languages and cookies by which pages are kept, in characters. */
const longest = 300;
const longestCookie = 1500;

/** Addresses of which a page was kept: of others nobody is asked who comes. */
const addresses = new Set<string>();
const mostAddresses = 5000;

/**
 * What a request's page is kept under: all that it goes by. Null where it may be another each time: staff see their own work, and the openings
 * that a key has left are counted as they are used.
 */
async function keyOf({ url = '', headers }: IncomingMessage): Promise<string | null> {
	const { cookie = '', 'accept-language': languages = '' } = headers;
	if (url.length > longest || languages.length > longest || cookie.length > longestCookie || holdsKeys(cookie) || cookie.includes(passCookie)) return null;
	let who = '';
	if (sessionTokenOf(cookie)) {
		const caller = await callerOf(cookie, null);
		if (caller.who.kind === 'staff') return null;
		who = JSON.stringify([caller.person, groupsAt(caller.who, Date.now()).sort()]);
	}
	return [url, languages, headers['sec-gpc'] ?? '', headers.dnt ?? '', cookie, who].join('\n');
}

/** Whether a request may be answered by what is kept, as far as can be seen without asking anybody. */
export const mayBeKept = ({ method, url = '', headers }: IncomingMessage): boolean =>
	(method === 'GET' || method === 'HEAD') && headers.authorization === undefined && !url.includes('?');

/** Sends the page that is kept for such a request; false where none is. */
export async function sendKept(request: IncomingMessage, response: ServerResponse): Promise<boolean> {
	if (!addresses.has(request.url ?? '')) return false;
	const key = await keyOf(request);
	const page = key === null ? null : await cache.peek(key);
	if (!page) return false;
	for (const [name, value] of page.headers) response.setHeader(name, value);
	response.setHeader('x-request-id', newId());
	const known = request.headers['if-none-match']?.split(',').some((tag) => tag.trim().replace(/^W\//, '') === page.etag.replace(/^W\//, ''));
	if (known) {
		response.writeHead(304).end();
		return true;
	}
	const coding = new Negotiator(request).encoding(['br', 'gzip', 'identity']) as keyof Page['bodies'] | undefined;
	const body = page.bodies[coding ?? 'identity'];
	if (coding && coding !== 'identity') response.setHeader('content-encoding', coding);
	response.writeHead(200, { 'content-length': body.length });
	response.end(request.method === 'HEAD' ? undefined : body);
	return true;
}

const [packed, zipped] = [promisify(brotliCompress), promisify(gzip)];

/** The latest instant until which a page made at `at` is the same, if nothing changes: hours, and the day that notices and dates go by. */
async function sameUntil(at: number): Promise<number> {
	const { zone } = await site();
	const { until } = spanOf(null, dayOf(at, zone), zone);
	return Math.min(await nextTurn(at), until ?? Infinity);
}

interface Holds {
	/** How much had changed when its making began (`changesSoFar`). */
	readonly begun: number;
	/** What the page itself says. */
	readonly until: number;
}

/**
 * Keeps a page that kit made for such a request. Gives the answer to send on: its body has been read.
 * What cannot be kept is sent all the same.
 */
export async function keep(request: IncomingMessage, answer: Response, holds: Holds): Promise<Response> {
	if (request.method !== 'GET') return answer;
	const identity = Buffer.from(await answer.arrayBuffer());
	await keepPage(request, answer.headers, identity, holds).catch((err: unknown) => log().warn({ err }, 'a page was not kept'));
	return new Response(identity, answer);
}

async function keepPage(request: IncomingMessage, sent: Headers, identity: Buffer, { begun, until: own }: Holds): Promise<void> {
	const at = Date.now();
	const key = await keyOf(request);
	if (key === null) return;
	const [br, gz, until] = await Promise.all([packed(identity, { params: { [constants.BROTLI_PARAM_QUALITY]: 5 } }), zipped(identity), sameUntil(at)]);
	const etag = sent.get('etag') ?? `"${createHash('sha256').update(identity).digest('base64url').slice(0, 20)}"`;
	const headers = [...sent].filter(([name]) => !['content-length', 'etag', 'x-request-id'].includes(name));
	cache.put(
		key,
		{ headers: [...headers, ['etag', etag], ['vary', 'Accept-Encoding']], etag, bodies: { br, gzip: gz, identity } },
		{ until: Math.min(until, own), begun }
	);
	if (addresses.size >= mostAddresses) addresses.clear();
	addresses.add(request.url ?? '');
}
