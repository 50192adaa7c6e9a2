// What the JSON routes share: errors as problem details, bodies read as JSON.
import { isHttpError, json, type RequestEvent } from '@sveltejs/kit';
import { catalogue, IanuaError, problemOf, type ErrorCode } from '#core/errors';
import type { DocumentChange } from '../documents/change';
import { documentJson, documentView } from '../documents/view';
import { log } from '../log';
import { recordTurnedAway, TurnedAway, type FileRequest } from '../reading/chain';
import { checked, unkeepable, zeroByte, type Checked } from '../validate';

/** What PostgreSQL says of what it cannot keep, by its codes, in words. */
const refusedByDatabase: Readonly<Record<string, string>> = { '22021': zeroByte, '22P05': zeroByte, '22003': 'a number in it is too large' };

/** The error of the catalogue that an error is. */
function knownError(error: unknown): IanuaError {
	if (error instanceof IanuaError) return error;
	// what a lock throws, or a page
	if (isHttpError(error) && Object.hasOwn(catalogue, error.body.code)) return new IanuaError(error.body.code as ErrorCode);
	// Drizzle says which query it was, and has the database's own error as its cause
	const { code } = ((error as { cause?: unknown } | null)?.cause ?? error ?? {}) as { code?: string };
	// a statement that took too long (57014) was ended
	if (code === '57014') return new IanuaError('busy');
	const detail = refusedByDatabase[code ?? ''];
	if (detail) return new IanuaError('not-valid', { detail });
	return new IanuaError('unexpected');
}

/** Problem details (RFC 9457) for any error; an unexpected one is logged and worded calmly. */
export function problem(error: unknown, requestId: string): Response {
	const known = knownError(error);
	if (known.code === 'unexpected') log().error({ err: error, requestId }, 'unexpected error');
	return new Response(JSON.stringify(problemOf(known, requestId)), {
		status: known.status,
		headers: {
			'content-type': 'application/problem+json',
			'cache-control': 'no-store',
			...(known.code === 'busy' ? { 'retry-after': '2' } : {}),
			...limitHeaders(known)
		}
	});
}

/** How long to wait after too many tries: Retry-After (RFC 9110, 10.2.3), and the fields of the IETF's draft “RateLimit header fields for HTTP” (from memory). */
export function limitHeaders({ code, facts: { most, window, seconds } }: IanuaError): Record<string, string> {
	if (code !== 'too-many-tries') return {};
	return {
		'retry-after': seconds ?? String(quarterOfAnHour),
		...(most && window && seconds ? { 'ratelimit-policy': `"tries";q=${most};w=${window}`, ratelimit: `"tries";r=0;t=${seconds}` } : {})
	};
}

/** S: what the words of the catalogue say of too many tries, where nothing says it closer. */
export const quarterOfAnHour = 900;

/** Wraps a JSON route so that what it throws goes out as problem details. */
export function route<E extends RequestEvent>(handle: (event: E) => Promise<Response> | Response): (event: E) => Promise<Response> {
	return async (event) => {
		try {
			return await handle(event);
		} catch (error) {
			return problem(error, event.locals.requestId);
		}
	};
}

/** The body as JSON, checked. */
export async function body<V>(event: RequestEvent, check: (value: unknown) => Checked<V>): Promise<V> {
	let value: unknown;
	try {
		value = await event.request.json();
	} catch {
		throw new IanuaError('not-json');
	}
	const detail = unkeepable(value);
	if (detail) throw new IanuaError('not-valid', { detail });
	return checked(check, value);
}

/** The present address of a document, by its present or a former one. */
export async function presentSlug(slug: string): Promise<string> {
	const view = await documentView(slug);
	if (!view || view.goneAt) throw new IanuaError('not-found');
	return view.slug;
}

/** A document as JSON, with what else is to be said. */
export async function documentAnswer(slug: string, status = 200, more: { readonly before?: DocumentChange } = {}): Promise<Response> {
	const view = await documentView(slug);
	if (!view || view.goneAt) throw new IanuaError('not-found');
	return answer({ ...documentJson(view), ...more }, status);
}

/** An answer of the API as JSON, kept by nobody. */
export const answer = (value: unknown, status = 200): Response => json(value, { status, headers: { 'cache-control': 'no-store' } });

/** What the chain asks of a request that kit took. */
export function fileRequestOf(event: RequestEvent, slug: string): FileRequest {
	return {
		method: event.request.method,
		slug,
		query: event.url.searchParams,
		address: event.getClientAddress(),
		header: (name) => event.request.headers.get(name),
		caller: event.locals.caller
	};
}

/**
 * A route that yields part of a document. A refusal goes into the ledger where `records` says so, and out as the turned-away
 * page for a browser that wants a page, else as problem details.
 */
export function part<E extends RequestEvent>(handle: (event: E) => Promise<Response>, records: boolean): (event: E) => Promise<Response> {
	return async (event) => {
		try {
			return await handle(event);
		} catch (error) {
			if (error instanceof TurnedAway) {
				if (records) await recordTurnedAway(error, event.request.method);
				if (event.request.headers.get('accept')?.includes('text/html') && event.params.slug) {
					return event.fetch(`/d/${encodeURIComponent(event.params.slug)}/turned-away${event.url.search}`, { headers: { accept: 'text/html' } });
				}
			}
			return problem(error, event.locals.requestId);
		}
	};
}
