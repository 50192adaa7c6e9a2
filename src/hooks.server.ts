// Every request: an id, a look at its origin and size, who it comes from, whether they come in (guard/), and headers that hold for all
// answers. Nothing here goes by the text of an address: the framework has made of it a route and its parameters.
import { error, redirect, type Handle, type HandleServerError, type RequestEvent, type ServerInit } from '@sveltejs/kit';
import { building } from '$app/environment';
import { IanuaError, type ErrorCode } from '#core/errors';
import { reaches } from '#core/people/scope';
import { frameAncestors } from '#core/placing/outside';
import { earlyPage } from '#core/reading/early';
import { directionOf, isLanguage } from '#core/words/words';
import { trialOf } from '$lib/server/access/try-door';
import { callerFor } from '$lib/server/access/passes';
import { changed } from '$lib/server/db/changes';
import { entryOf, looks, refusalAt, scopesFor } from '$lib/server/guard/guard';
import type { Entry } from '$lib/server/guard/table';
import { methodProblem, problem, quarterOfAnHour } from '$lib/server/http/problem';
import { asksBefore, mayAsk, programOrigin, readableAt } from '$lib/server/http/cors';
import { fieldsOf, isPlainForm } from '$lib/server/http/form';
import { sameField } from '$lib/server/http/kept-pages';

import { newId } from '$lib/server/id';
import { log } from '$lib/server/log';
import { routed } from '$lib/server/metrics';
import { traceOf } from '$lib/server/trace';
import { hasOwner } from '$lib/server/people/directory';
import { callerOf, heldTo, nobody } from '$lib/server/people/who';
import { resolve } from '$lib/server/reading/resolve';
import { agreedCookie, readerCookie } from '$lib/server/reading/reader';
import { settings } from '$lib/server/settings';
import { languageCookie, languageOf } from '$lib/server/site/language';
import { site } from '$lib/server/site/site';
import { start } from '$lib/server/start';

export const init: ServerInit = async () => {
	if (!building) await start({ work: settings().IANUA_JOBS === 'here' });
};

/** A browser says where a request that changes something comes from; other programs say nothing and bring their own credentials. */
function foreign(request: Request): boolean {
	if (looks(request.method)) return false;
	const origin = request.headers.get('origin');
	const from = request.headers.get('sec-fetch-site');
	// a page that keeps its address to itself (no-referrer) has its forms sent with the origin “null”: then the browser’s own word counts
	if (origin !== null && origin !== 'null') return !settings().origins.includes(origin);
	if (origin === 'null') return from !== 'same-origin';
	return from !== null && from !== 'same-origin' && from !== 'none';
}

/** Bytes of a body that is no file. */
const mostBody = 2_000_000;
/** Beyond the file itself, what a form around it takes. */
const aroundFile = 1_000_000;

/** Bodies say how long they are and are small, but where files are taken: those are counted as they come. */
function bodyRefusal({ headers, body }: Request, { takesFiles }: Entry): ErrorCode | null {
	if (!body) return null;
	const length = headers.get('content-length');
	if (length === null) return takesFiles ? null : 'body-without-length';
	return Number(length) > (takesFiles ? settings().IANUA_MAX_UPLOAD + aroundFile : mostBody) ? 'body-too-large' : null;
}

/** What a refused one gets: problem details where programs ask, else a page, or the way to the sign-in. */
function refuse(event: RequestEvent, entry: Entry | null, code: ErrorCode, again = event.url.search): Response | never {
	const refusal = new IanuaError(code);
	if (entry?.answers === 'problem') return problem(refusal, event.locals.requestId);
	if (code === 'sign-in') redirect(303, `/sign-in?to=${encodeURIComponent(event.url.pathname + again)}`);
	error(refusal.status, { code, message: code === 'staff-only' ? 'The desk is for staff. You are signed in as a member.' : refusal.message });
}

const hasZero = ({ params, url }: RequestEvent) =>
	[...Object.values(params), ...url.searchParams.keys(), ...url.searchParams.values()].some((v) => (v as string | undefined)?.includes('\0'));

function setCookies({ cookies, url }: RequestEvent): void {
	const lasting = (days: number) => ({ path: '/', maxAge: days * 86_400, sameSite: 'lax', secure: url.protocol === 'https:' }) as const;
	const language = url.searchParams.get('lang');
	if (isLanguage(language)) cookies.set(languageCookie, language, lasting(365));
	const remember = url.searchParams.get('remember');
	if (remember === 'yes' || remember === 'no') {
		cookies.set(agreedCookie, remember, lasting(180));
		if (remember === 'no') cookies.delete(readerCookie, { path: '/d' });
	}
}

/** Whether a program is bound to folders, and the document that the address names stands in none of them. */
async function outsideFolders({ params, locals: { caller } }: RequestEvent, entry: Entry): Promise<boolean> {
	if (!caller.token?.folders || entry.folders !== 'document') return false;
	// the route has this parameter
	const found = await resolve(params.slug!);
	return !found || !reaches(caller.token, found.folder);
}

/** The query with which somebody comes back to a page whose form they sent while they were not signed in: what they asked for, where it can be offered. */
async function askedFor({ request, url }: RequestEvent, entry: Entry | null): Promise<string> {
	if (looks(request.method)) return url.search;
	const fields = entry?.again ? await fieldsOf(request) : {};
	// which of its forms it was is of no use any more (`?/tell`)
	const page = [...url.searchParams].filter(([name]) => !name.startsWith('/'));
	const asked = new URLSearchParams([...page, ...Object.entries(fields).filter(([name, value]) => value && entry?.again?.includes(name))]);
	return asked.size ? `?${asked.toString()}` : '';
}

/** Who asks, by a cookie where it counts, and whether they come in: the answer that a refused one gets, null for who goes on. */
async function admit(event: RequestEvent, entry: Entry | null, withCookie: boolean): Promise<Response | null> {
	const { request, locals, url } = event;
	if (!entry?.withoutDatabase) {
		const [cookie, authorization] = [withCookie ? request.headers.get('cookie') : null, request.headers.get('authorization')];
		// the route has this parameter
		locals.caller = await (entry?.byPass ? callerFor(event.params.slug!, cookie, authorization) : callerOf(cookie, authorization));
		locals.siteName = (await site()).name;
		// the path of a page of the site, where the route is that of one
		const path = event.route.id === '/(site)/[...path]' ? `/${event.params.path}` : null;
		locals.language = await languageOf((name) => request.headers.get(name), url.searchParams.get('lang'), path);
		if (!entry?.beforeBegin && !(await hasOwner())) redirect(303, '/begin');
	}
	if (!entry && event.route.id === null) return null;
	const refused = refusalAt(entry, request.method, locals.caller, event.getClientAddress());
	if (refused || !entry) return refuse(event, entry, refused ?? 'not-found', await askedFor(event, entry));
	if (entry.admits === 'everyone') {
		locals.caller = heldTo(locals.caller, scopesFor(entry, request.method));
		// where nothing holds a program to its folders, it is nobody
		if (locals.caller.token?.folders && !entry.folders) locals.caller = nobody;
	}
	if (await outsideFolders(event, entry)) return refuse(event, entry, 'not-found');
	if (entry.tried && request.method === 'GET' && locals.caller.who.kind === 'staff' && url.searchParams.has('try')) {
		try {
			locals.caller = (await trialOf(url.searchParams)) ?? locals.caller;
		} catch (refusal) {
			if (refusal instanceof IanuaError) error(refusal.status, { code: refusal.code, message: refusal.message });
			throw refusal;
		}
	}
	return null;
}

/** Headers that hold for every answer. */
function withHeaders(response: Response, { locals }: RequestEvent, entry: Entry | null): Response {
	const { headers } = response;
	headers.set('x-request-id', locals.requestId);
	if (!headers.has('x-content-type-options')) headers.set('x-content-type-options', 'nosniff');
	// not “no-referrer”: browsers then send the forms of such a page without saying where they come from
	if (!headers.has('referrer-policy')) headers.set('referrer-policy', entry?.secret ? 'same-origin' : 'strict-origin-when-cross-origin');
	// RFC 9110, 15.5.2: what would let one in; programs come by a token, and browsers ask nobody for one
	if (response.status === 401 && !headers.has('www-authenticate')) headers.set('www-authenticate', 'Bearer realm="ianua"');
	if (response.status === 429 && !headers.has('retry-after')) headers.set('retry-after', String(quarterOfAnHour));
	if (entry?.secret) headers.set('cache-control', 'no-store');
	if (!headers.has('cache-control')) headers.set('cache-control', 'private, no-cache');
	if (entry?.same && response.status === 200 && locals.caller.who.kind !== 'staff' && !locals.caller.trial && !headers.has('set-cookie'))
		headers.set(sameField, String(locals.sameUntil ?? Infinity));
	return response;
}

/** Where a reading room opens. */
const rooms: ReadonlySet<string | null> = new Set(['/d/[slug]/read', '/embed/[slug]']);

/** The answer to a request that came in. */
async function answerOf(event: RequestEvent, entry: Entry | null, resolve: Parameters<Handle>[0]['resolve']): Promise<Response> {
	const { locals } = event;
	const theme = /^(light|dark)$/.exec(event.cookies.get('ianua_theme') ?? '')?.[1] ?? 'system';
	const language = entry?.english ? 'en' : locals.language;
	const spoken = directionOf(language) === 'rtl' ? `${language}" dir="rtl` : language;
	const resolved = await resolve(event, {
		transformPageChunk: ({ html }) =>
			html
				.replace('%ianua.theme%', theme)
				.replace('%ianua.language%', spoken)
				// a room that opens says its page before its script has come; no other page has such a script
				.replace(/\s*<script[^>]*>\s*%ianua\.early%\s*<\/script>/, (script) =>
					rooms.has(event.route.id) ? script.replace('%ianua.early%', () => earlyPage) : ''
				)
	});
	const response = resolved.status === 405 && entry?.answers === 'problem' ? methodProblem(resolved, locals.requestId) : resolved;
	// what was changed is seen here from now on, before the word of it has come round by the database; who is refused before this changes nothing
	if (entry && !entry.silent && !looks(event.request.method)) changed();
	if (locals.framing) {
		// framed by the sites that may; a site that may not gets nothing but a link, which any may show
		const { framers = [] } = await site();
		const policy = response.headers.get('content-security-policy');
		const ancestors = locals.framing.allowed ? frameAncestors(framers) : '*';
		if (policy) response.headers.set('content-security-policy', policy.replace(/frame-ancestors [^;]*/, `frame-ancestors ${ancestors}`));
	}
	return response;
}

export const handle: Handle = async ({ event, resolve }) => {
	const started = performance.now();
	const { request, locals, route } = event;
	locals.requestId = newId();
	routed.set(request, route.id ?? 'none');
	locals.caller = nobody;
	locals.language = 'en';
	const entry = entryOf(route.id);
	const elsewhere = await programOrigin(event);
	const early =
		foreign(request) && !elsewhere && !(entry?.fromElsewhere && isPlainForm(request))
			? 'foreign-origin'
			: hasZero(event)
				? 'zero-byte'
				: entry && !entry.takesFiles
					? bodyRefusal(request, entry)
					: null;
	if (!early) setCookies(event);
	let response = early ? refuse(event, entry, early) : elsewhere && asksBefore(event) ? mayAsk() : await admit(event, entry, !elsewhere);
	// how large a file may be is told to those who may send one
	const tooMuch = !response && entry?.takesFiles ? bodyRefusal(request, entry) : null;
	if (tooMuch) response = refuse(event, entry, tooMuch);
	response = withHeaders(response ?? (await answerOf(event, entry, resolve)), event, entry);
	if (elsewhere) readableAt(elsewhere, response);
	if (entry?.answers === 'problem' || response.status >= 400)
		log().info(
			{
				requestId: locals.requestId,
				trace: traceOf(request.headers.get('traceparent')),
				method: request.method,
				route: route.id,
				status: response.status,
				ms: Math.round(performance.now() - started)
			},
			'request'
		);
	return response;
};

export const handleError: HandleServerError = ({ error: caught, event, status, message }) => {
	if (caught instanceof IanuaError) return { code: caught.code, message: caught.message };
	if (status !== 404) log().error({ err: caught, requestId: event.locals.requestId, route: event.route.id }, 'unexpected error');
	return status === 404
		? { code: 'not-found', message: 'There is nothing here for you at this address.' }
		: { code: 'unexpected', message: status === 500 ? new IanuaError('unexpected').message : message, requestId: event.locals.requestId };
};
