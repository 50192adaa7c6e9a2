// Every request: an id, who it comes from, a look at its origin, and headers that hold for all answers.
import { error, redirect, type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit';
import { building } from '$app/environment';
import { svelteKitHandler } from 'better-auth/svelte-kit';
import { IanuaError } from '#core/errors';
import { frameAncestors } from '#core/placing/outside';
import { directionOf, isLanguage } from '#core/words/words';
import { trialOf } from '$lib/server/access/try-door';
import { ensureLedgerMonths, migrateDatabase } from '$lib/server/db/client';
import { dropTemporary } from '$lib/server/files/store';
import { problem } from '$lib/server/http/api';
import { newId } from '$lib/server/id';
import { log } from '$lib/server/log';
import { addressHeader, auth } from '$lib/server/people/auth';
import { hasOwner } from '$lib/server/people/service';
import { callerOf } from '$lib/server/people/who';
import { deliverFile } from '$lib/server/reading/deliver';
import { agreedCookie, readerCookie } from '$lib/server/reading/reader';
import { settings } from '$lib/server/settings';
import { languageCookie, languageOf } from '$lib/server/site/language';
import { site } from '$lib/server/site/site';
import { zeroByte } from '$lib/server/validate';
import { startWork } from '$lib/server/work';

const dayMs = 86_400_000;

export const init: ServerInit = async () => {
	if (building) return;
	settings();
	await migrateDatabase(process.env.IANUA_MIGRATIONS ?? 'drizzle');
	await dropTemporary(Date.now());
	await startWork();
	setInterval(() => void ensureLedgerMonths(new Date()).catch((err: unknown) => log().error({ err }, 'ledger partitions')), dayMs).unref();
	// The node server in scripts/serve.ts takes requests for files before kit sees them, by the same chain.
	(globalThis as { ianuaDeliverFile?: typeof deliverFile }).ianuaDeliverFile = deliverFile;
};

const unsafe = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

/** A browser says where an unsafe request comes from; other programs say nothing and bring their own credentials. */
function foreign(request: Request): boolean {
	if (!unsafe.has(request.method)) return false;
	const origin = request.headers.get('origin');
	if (origin !== null) return !settings().origins.includes(origin);
	const from = request.headers.get('sec-fetch-site');
	return from !== null && from !== 'same-origin' && from !== 'none';
}

export const handle: Handle = async ({ event, resolve }) => {
	const started = performance.now();
	event.locals.requestId = newId();
	const { pathname } = event.url;
	const isApi = pathname.startsWith('/api/');
	if (foreign(event.request)) return problem(new IanuaError('foreign-origin'), event.locals.requestId);
	if (event.url.href.includes('%00')) {
		const refusal = new IanuaError('not-valid', { detail: zeroByte });
		if (isApi) return problem(refusal, event.locals.requestId);
		error(400, { code: refusal.code, message: refusal.message });
	}

	const asked = event.url.searchParams.get('lang');
	if (isLanguage(asked))
		event.cookies.set(languageCookie, asked, { path: '/', maxAge: 365 * 86_400, sameSite: 'lax', secure: event.url.protocol === 'https:' });

	const remember = event.url.searchParams.get('remember');
	if (remember === 'yes' || remember === 'no') {
		event.cookies.set(agreedCookie, remember, { path: '/', maxAge: 180 * 86_400, sameSite: 'lax', secure: event.url.protocol === 'https:' });
		if (remember === 'no') event.cookies.delete(readerCookie, { path: '/d' });
	}

	if (pathname !== '/healthz') {
		event.locals.caller = await callerOf(event.request.headers.get('cookie'), event.request.headers.get('authorization'));
		event.locals.siteName = (await site()).name;
		event.locals.language = await languageOf((name) => event.request.headers.get(name), asked, pathname);
		if (!(await hasOwner()) && pathname !== '/begin' && !isApi) redirect(303, '/begin');
	}
	if (
		event.url.searchParams.has('try') &&
		event.request.method === 'GET' &&
		event.locals.caller?.who.kind === 'staff' &&
		!/^\/(?:desk|api|me|sign-in)(?:\/|$)/.test(pathname)
	) {
		try {
			event.locals.caller = (await trialOf(event.url.searchParams)) ?? event.locals.caller;
		} catch (refusal) {
			if (refusal instanceof IanuaError) error(refusal.status, { code: refusal.code, message: refusal.message });
			throw refusal;
		}
	}
	if (pathname.startsWith('/desk')) {
		const { person, who } = event.locals.caller;
		if (!person) redirect(303, `/sign-in?to=${encodeURIComponent(pathname + event.url.search)}`);
		if (who.kind !== 'staff') error(403, { code: 'staff-only', message: 'The desk is for staff. You are signed in as a member.' });
	}
	if (pathname.startsWith('/api/auth')) {
		event.request.headers.set(addressHeader, event.getClientAddress());
		// foreign() has looked at the origin; a program that names none is not turned down for that by better-auth
		if (!event.request.headers.has('origin')) event.request.headers.set('origin', settings().IANUA_ORIGIN);
	}

	const theme = /^(light|dark)$/.exec(event.cookies.get('ianua_theme') ?? '')?.[1] ?? 'system';
	// the desk speaks English
	const language = pathname.startsWith('/desk') || pathname === '/begin' ? 'en' : (event.locals.language ?? 'en');
	const spoken = directionOf(language) === 'rtl' ? `${language}" dir="rtl` : language;
	const response = await svelteKitHandler({
		event,
		auth: auth(),
		building,
		resolve: (e) => resolve(e, { transformPageChunk: ({ html }) => html.replace('%ianua.theme%', theme).replace('%ianua.language%', spoken) })
	});

	const { headers } = response;
	if (pathname.startsWith('/embed/')) {
		// framed by the sites that may; a site that may not gets nothing but a link, which any may show
		const { framers = [] } = await site();
		const policy = headers.get('content-security-policy');
		const ancestors = event.locals.framing?.allowed === false ? '*' : frameAncestors(framers);
		if (policy) headers.set('content-security-policy', policy.replace(/frame-ancestors [^;]*/, `frame-ancestors ${ancestors}`));
	}
	headers.set('x-request-id', event.locals.requestId);
	if (!headers.has('x-content-type-options')) headers.set('x-content-type-options', 'nosniff');
	if (!headers.has('referrer-policy')) headers.set('referrer-policy', 'strict-origin-when-cross-origin');
	if (!headers.has('cache-control')) headers.set('cache-control', 'private, no-cache');
	if (isApi || response.status >= 400) {
		log().info(
			{ requestId: event.locals.requestId, method: event.request.method, path: pathname, status: response.status, ms: Math.round(performance.now() - started) },
			'request'
		);
	}
	return response;
};

export const handleError: HandleServerError = ({ error: caught, event, status, message }) => {
	if (caught instanceof IanuaError) return { code: caught.code, message: caught.message };
	if (status !== 404) log().error({ err: caught, requestId: event.locals.requestId, path: event.url.pathname }, 'unexpected error');
	return status === 404
		? { code: 'not-found', message: 'There is nothing here for you at this address.' }
		: { code: 'unexpected', message: status === 500 ? new IanuaError('unexpected').message : message, requestId: event.locals.requestId };
};
