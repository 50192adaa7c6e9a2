// What page loads share: a refusal of the chain becomes the turned-away page, with the right status.
import { error, redirect, type RequestEvent } from '@sveltejs/kit';
import type { TurnedAwayWords } from '#core/access/door';
import { IanuaError } from '#core/errors';
import type { Action, Reason, RefusedCode } from '#core/access/decide';
import type { Language } from '#core/words/words';
import { turnedAway, type AnnouncedAway, type Announcement } from '../access/turned-away';
import { letIn, letInOrRecord, TurnedAway, type LetIn } from '../reading/chain';
import { agreedCookie, keptOfBrowser, newReaderId, readerCookie } from '../reading/reader';
import { fileRequestOf } from './api';

/** Throws kit's error for a refusal of the catalogue; anything else goes on as it is. `knockAt` is where one may knock. */
export function turnAway(refusal: unknown, knockAt: string | null = null): never {
	if (refusal instanceof TurnedAway) throwAway(refusal, refusal.page, knockAt);
	if (refusal instanceof IanuaError) error(refusal.status, { code: refusal.code, message: refusal.message });
	throw refusal;
}

function throwAway(known: IanuaError, { words, knock, ...page }: AnnouncedAway, knockAt: string | null): never {
	error(known.status, { code: known.code, message: words, ...page, knockAt: knock ? knockAt : null });
}

/** The same for a page of the site, or a key by itself: nobody can knock there. */
export async function turnAwayFromPage(
	reason: Pick<Reason, 'at' | 'group'> & { readonly code: RefusedCode },
	own: TurnedAwayWords | null,
	language: Language,
	announced: Announcement | null = null
): Promise<never> {
	const page = await turnedAway(reason, own, language, announced);
	const hidden = reason.code === 'shut' || reason.code === 'set-aside';
	throwAway(new IanuaError(hidden ? 'not-found' : reason.code), page, null);
}

/** Whether a visitor gets the reader cookie: the site uses it, they agreed, and have none. */
async function mayRemember(event: RequestEvent, { caller }: LetIn): Promise<boolean> {
	if (caller.person || caller.trial || event.cookies.get(readerCookie) || event.cookies.get(agreedCookie) !== 'yes') return false;
	return (await keptOfBrowser((name) => event.request.headers.get(name))) === 'cookie';
}

/** Whether a visitor is to be asked if their browser may be remembered. */
export async function asksToRemember(event: RequestEvent, { caller }: LetIn): Promise<boolean> {
	if (caller.person || caller.trial || event.cookies.get(agreedCookie)) return false;
	return (await keptOfBrowser((name) => event.request.headers.get(name))) === 'cookie';
}

/**
 * Lets somebody in at a page about a document, or turns them away. A former address leads on to the present one. Visitors
 * get the cookie by which their readings are told apart. `records` enters a refusal in the ledger.
 */
export async function enter(event: RequestEvent, slug: string, action: Action, records = true): Promise<LetIn> {
	const ask = fileRequestOf(event, slug);
	let entered: LetIn;
	try {
		entered = await (records ? letInOrRecord(ask, action) : letIn(ask, action));
	} catch (refusal) {
		turnAway(refusal, `/d/${encodeURIComponent(slug)}/knock`);
	}
	if (entered.found.slug !== slug) redirect(308, event.url.pathname.replace(/^(\/[^/]+)\/[^/]+/, `$1/${entered.found.slug}`) + event.url.search);
	if (await mayRemember(event, entered)) {
		event.cookies.set(readerCookie, newReaderId(), {
			path: '/d',
			httpOnly: true,
			sameSite: 'lax',
			maxAge: 30 * 24 * 3600,
			secure: event.url.protocol === 'https:'
		});
	}
	return entered;
}
