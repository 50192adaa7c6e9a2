// Entity tags of the API (RFC 9110, 8.8.3): what is given carries one, what has not changed is not given again (13.1.2), and a change that was
// meant for an earlier state is refused with the names of what differs (13.1.1).
import { createHash } from 'node:crypto';
import type { RequestEvent } from '@sveltejs/kit';
import { IanuaError } from '#core/errors';
import { tagList } from '#core/reading/range';
import { sql } from '../db/client';
import { Lane } from '../lanes';

const digest = (text: string) => createHash('sha256').update(text).digest('base64url');
/** Letters that a field takes in a tag: enough to tell which ones changed; that any did is told by the whole. */
const short = 3;
const wholeLetters = 22;

/** The fields of a thing with a short digest each, in order of their names; none for a list. */
function fieldsOf(text: string): [name: string, digest: string][] {
	const value = JSON.parse(text) as unknown;
	if (typeof value !== 'object' || value === null || Array.isArray(value) || 'items' in value) return [];
	return Object.entries(value)
		.sort(([a], [b]) => (a < b ? -1 : 1))
		.map(([name, v]) => [name, digest(JSON.stringify(v)).slice(0, short)]);
}

/** The strong tag of an answer in JSON: a digest of all of it, and where it is one thing, of each of its fields. */
export const tagOf = (text: string): string =>
	`"${digest(text).slice(0, wholeLetters)}${fieldsOf(text)
		.map(([, letters]) => letters)
		.join('')}"`;

/** Which fields of a thing are others than those that a tag was made of; empty where the tag does not tell. */
export function differing(tag: string, text: string): string[] {
	const before = tag.slice(1 + wholeLetters, -1);
	const now = fieldsOf(text);
	if (before.length !== now.length * short) return [];
	return now.filter(([, letters], i) => letters !== before.slice(i * short, (i + 1) * short)).map(([name]) => name);
}

/** An answer of 200 in JSON with its tag; 304 without a body where the one who asks has it. */
export async function withTag({ request }: RequestEvent, response: Response): Promise<Response> {
	if (response.status !== 200 || !response.headers.get('content-type')?.startsWith('application/json')) return response;
	const text = await response.text();
	return unlessKnown(request, text, tagOf(text), new Headers(response.headers));
}

/** A text of another kind with its tag. */
export const textWithTag = ({ request }: RequestEvent, text: string, type: string): Response =>
	unlessKnown(request, text, `"${digest(text).slice(0, wholeLetters)}"`, new Headers({ 'content-type': `${type}; charset=utf-8` }));

function unlessKnown(request: Request, text: string, tag: string, headers: Headers): Response {
	headers.set('etag', tag);
	const known = request.headers.get('if-none-match');
	// 13.1.2: compared weakly
	if (!known || !tagList(known).some((t) => t === '*' || t.replace(/^W\//, '') === tag)) return new Response(text, { status: 200, headers });
	headers.delete('content-length');
	headers.delete('content-type');
	return new Response(null, { status: 304, headers });
}

/** Changes that go by a tag: each holds a connection while it looks and changes. */
const changes = new Lane({ atOnce: 6, waiting: 200, perPlace: 100 });

/**
 * Does a change only where the thing at this address is as the caller has it (`If-Match`). Of those that say so, one after the other changes
 * a thing, on all servers; who does not say so is not held up. Throws `precondition-failed` with what differs.
 */
export async function ifMatching(event: RequestEvent, change: () => Promise<Response>): Promise<Response> {
	const wanted = event.request.headers.get('if-match');
	if (wanted === null) return change();
	const { pathname } = event.url;
	const look = async (): Promise<{ tag: string; text: string } | null> => {
		// with the cookie or the token of who asks; a token that may change and not look gets no further
		const response = await event.fetch(pathname);
		const tag = response.headers.get('etag');
		return response.status === 200 && tag ? { tag, text: await response.text() } : null;
	};
	return changes.run(event.getClientAddress(), () =>
		sql().begin(async (tx) => {
			await tx`select pg_advisory_xact_lock(hashtextextended(${pathname}, 0))`;
			const now = await look();
			const tags = tagList(wanted);
			if (!now || !tags.some((t) => t === '*' || t === now.tag)) {
				const names = now && tags.length === 1 ? differing(tags[0]!, now.text) : [];
				throw new IanuaError('precondition-failed', {
					differs: names.join(', ') || (now ? 'what is there is another' : 'nothing is to be read at this address'),
					...(now ? { etag: now.tag } : {})
				});
			}
			const response = await change();
			const after = response.ok ? await look() : null;
			if (after) response.headers.set('etag', after.tag);
			return response;
		})
	);
}
