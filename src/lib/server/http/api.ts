// What the JSON routes share: errors as problem details, bodies read as JSON, entity tags, and presses that may be repeated.
import { json, type RequestEvent } from '@sveltejs/kit';
import { IanuaError } from '#core/errors';
import type { DocumentChange } from '../documents/change';
import { documentJson, documentView } from '../documents/view';
import { looks } from '../guard/guard';
import { recordTurnedAway, TurnedAway, type FileRequest } from '../reading/chain';
import { checked, unkeepable, type Checked } from '../validate';
import { ifMatching, withTag } from './conditional';
import { once } from './idempotency';
import { problem } from './problem';
import { selected, selectionOf } from './selection';

/**
 * Wraps a JSON route: what it throws goes out as problem details; what it gives carries a tag, and of it only the `fields` that were asked
 * for; a change is made where `If-Match` allows it, and once under an `Idempotency-Key`.
 */
export function route<E extends RequestEvent>(handle: (event: E) => Promise<Response> | Response): (event: E) => Promise<Response> {
	return async (event) => {
		try {
			if (event.request.method === 'POST') return await once(event, async () => handle(event));
			if (!looks(event.request.method)) return await ifMatching(event, async () => handle(event));
			const names = selectionOf(event);
			return await withTag(event, await selected(names, await handle(event)));
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
		requestId: event.locals.requestId,
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
