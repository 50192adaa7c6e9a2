// Fetches a file from a web address for staff: bounded in size, time and redirects, and never from a private network,
// however the name resolves or an answer leads on (RFC 6890: special-purpose addresses).
import { lookup } from 'node:dns';
import { lookup as resolved } from 'node:dns/promises';
import { request as httpRequest, type IncomingMessage } from 'node:http';
import { request as httpsRequest } from 'node:https';
import { isIP, type LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';
import { IanuaError } from '#core/errors';
import { settings } from '../settings';

export const mostRedirects = 5;
/** Seconds for a whole fetch. */
export const mostSeconds = 120;

/** Whether an address is one that anybody may reach: a unicast address outside every special-purpose block. */
export function isPublic(address: string): boolean {
	if (!ipaddr.isValid(address)) return false;
	// an IPv4 address inside an IPv6 one counts as what it stands for
	const parsed = ipaddr.process(address);
	return parsed.range() === 'unicast';
}

/** Hosts that staff of the server allow whatever their address: `IANUA_WEB_ALLOW`, a list of host:port. */
const allowed = (url: URL) => settings().webAllow.includes(url.host);

const guarded: LookupFunction = (host, options, done) => {
	lookup(host, { ...options, all: true }, (error, addresses) => {
		if (error) {
			done(error, '', 4);
			return;
		}
		// one private address among several is enough to refuse: the next answer could give that one
		if (!addresses.length || addresses.some((a) => !isPublic(a.address))) {
			done(new IanuaError('web-private', { host }), '', 4);
			return;
		}
		// with "all" Node's lookup wants the list, which its type leaves out
		if (options.all) (done as unknown as (e: null, a: typeof addresses) => void)(null, addresses);
		else done(null, addresses[0]!.address, addresses[0]!.family);
	});
};

export interface Fetched {
	readonly status: 200 | 304;
	/** The address that answered at last. */
	readonly url: string;
	readonly etag: string | null;
	readonly lastModified: string | null;
	/** A file name suggested by the answer or the address. */
	readonly fileName: string;
	readonly stream: AsyncIterable<Uint8Array> | null;
}

/** The address of a file on the web. Throws `web-address` where it is none. */
export function webAddress(text: string): URL {
	let url: URL;
	try {
		url = new URL(text.trim());
	} catch {
		throw new IanuaError('web-address', { url: text });
	}
	if (!['http:', 'https:'].includes(url.protocol) || url.username || url.password) throw new IanuaError('web-address', { url: text });
	return url;
}

/** Ms for which an answer about a name is waited for. */
const lookupMs = 3_000;

/** Throws `web-private` where an address leads into a private network as its name resolves now; one that nobody knows the name of is left to the call itself. */
export async function refusePrivate(url: URL): Promise<void> {
	if (allowed(url)) return;
	const host = url.hostname.replace(/^\[|\]$/g, '');
	const unknown = new Promise<never[]>((go) => setTimeout(() => go([]), lookupMs).unref());
	const addresses = isIP(host) ? [{ address: host }] : await Promise.race([resolved(host, { all: true }).catch(() => []), unknown]);
	if (addresses.some(({ address }) => !isPublic(address))) throw new IanuaError('web-private', { host });
}

/** Fetches; with `known`, an unchanged file is answered with 304 (RFC 9110, 13.1). The stream ends with an error when time is up. */
export async function fetchFile(address: string, known: { etag?: string | null; lastModified?: string | null } = {}): Promise<Fetched> {
	const clock = AbortSignal.timeout(mostSeconds * 1000);
	let url = webAddress(address);
	for (let hop = 0; hop <= mostRedirects; hop++) {
		const response = await ask(url, known, clock);
		const status = response.statusCode ?? 0;
		if ([301, 302, 303, 307, 308].includes(status) && response.headers.location) {
			response.destroy();
			url = webAddress(new URL(response.headers.location, url).href);
			continue;
		}
		const head = {
			url: url.href,
			etag: response.headers.etag?.slice(0, 200) ?? null,
			lastModified: response.headers['last-modified']?.slice(0, 100) ?? null,
			fileName: decoded(url.pathname.split('/').pop() || 'document.pdf')
		};
		if (status === 304) {
			response.destroy();
			return { ...head, status, stream: null };
		}
		if (status !== 200) {
			response.destroy();
			if (status === 404 || status === 410) throw new IanuaError('web-gone', { answer: String(status) });
			throw new IanuaError('web-unreachable', { detail: `it answered ${status}` });
		}
		return { ...head, status, stream: timed(response, clock) };
	}
	throw new IanuaError('web-redirects');
}

/** What stands at an address, of at most so many bytes; never in a private network. */
export async function fetchBytes(address: string, most: number): Promise<Buffer> {
	const { stream } = await fetchFile(address);
	const parts: Uint8Array[] = [];
	let bytes = 0;
	// asked without what is known, it was answered whole
	for await (const part of stream!) {
		parts.push(part);
		if ((bytes += part.length) > most) throw new IanuaError('web-unreachable', { detail: `more than ${most} bytes stand there` });
	}
	return Buffer.concat(parts);
}

/** Posts JSON to a program elsewhere, never in a private network; gives the status of the answer. No redirect is followed. */
export async function postTo(address: string, body: string, headers: Record<string, string>): Promise<number> {
	const clock = AbortSignal.timeout(15_000);
	const response = await ask(webAddress(address), {}, clock, { body, headers });
	response.resume();
	return response.statusCode ?? 0;
}

function decoded(text: string): string {
	try {
		return decodeURIComponent(text);
	} catch {
		return text;
	}
}

async function* timed(response: IncomingMessage, clock: AbortSignal): AsyncGenerator<Uint8Array> {
	try {
		for await (const chunk of response) yield chunk as Buffer;
	} catch {
		throw clock.aborted
			? new IanuaError('web-too-slow', { seconds: String(mostSeconds) })
			: new IanuaError('web-unreachable', { detail: 'the connection broke off' });
	}
	if (!response.complete) throw new IanuaError('web-unreachable', { detail: 'the connection broke off' });
}

function ask(
	url: URL,
	known: { etag?: string | null; lastModified?: string | null },
	clock: AbortSignal,
	post?: { readonly body: string; readonly headers: Record<string, string> }
): Promise<IncomingMessage> {
	const free = allowed(url);
	const host = url.hostname.replace(/^\[|\]$/g, '');
	// a name in numbers is not looked up, so it is looked at here
	if (!free && isIP(host) && !isPublic(host)) throw new IanuaError('web-private', { host });
	return new Promise((resolve, reject) => {
		const send = url.protocol === 'https:' ? httpsRequest : httpRequest;
		const request = send(
			url,
			{
				signal: clock,
				agent: false,
				timeout: 30_000,
				...(free ? {} : { lookup: guarded }),
				...(post ? { method: 'POST' } : {}),
				headers: {
					...(post ? { 'content-type': 'application/json', 'content-length': String(Buffer.byteLength(post.body)), ...post.headers } : {}),
					accept: 'application/pdf, */*;q=0.5',
					'user-agent': 'Ianua',
					...(known.etag ? { 'if-none-match': known.etag } : {}),
					...(known.lastModified ? { 'if-modified-since': known.lastModified } : {})
				}
			},
			resolve
		);
		request.on('timeout', () => request.destroy(new IanuaError('web-too-slow', { seconds: '30' })));
		request.on('error', (error: NodeJS.ErrnoException) => {
			if (error instanceof IanuaError) {
				reject(error);
				return;
			}
			if (clock.aborted) {
				reject(new IanuaError('web-too-slow', { seconds: String(mostSeconds) }));
				return;
			}
			const words: Record<string, string> = {
				ENOTFOUND: 'nobody knows that name',
				ECONNREFUSED: 'nothing answers there',
				ECONNRESET: 'the connection broke off'
			};
			reject(new IanuaError('web-unreachable', { detail: words[error.code ?? ''] ?? error.code ?? 'the connection failed' }));
		});
		request.end(post?.body);
	});
}
