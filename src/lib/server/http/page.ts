// What page loads share: a refusal of the chain becomes the turned-away page, with the right status.
import { error, redirect, type RequestEvent } from '@sveltejs/kit';
import { refusalWords } from '#core/access/reach';
import { IanuaError } from '#core/errors';
import type { Action, RefusedCode } from '#core/access/decide';
import { letIn, letInOrRecord, TurnedAway, type LetIn } from '../reading/chain';
import { readerCookie } from '../reading/record';
import { newReaderId } from '../reading/reader';
import { askOf } from './api';

/** Throws kit's error for a refusal of the catalogue; anything else goes on as it is. */
export function turnAway(refusal: unknown): never {
	if (refusal instanceof TurnedAway) {
		const { heading, words, offersSignIn } = refusal.page;
		error(refusal.status, { code: refusal.code, message: words, heading, offersSignIn });
	}
	if (refusal instanceof IanuaError) error(refusal.status, { code: refusal.code, message: refusal.message });
	throw refusal;
}

/** The same for a page of the site. */
export function turnAwayFromPage(code: RefusedCode, zone: string, at: number | undefined, own: { heading?: string; words?: string } | null): never {
	const hidden = code === 'shut' || code === 'set-aside';
	const general = refusalWords(code, zone, { at });
	const { heading, words, offersSignIn } = hidden ? general : { ...general, ...own };
	const known = new IanuaError(hidden ? 'not-found' : code);
	error(known.status, { code: known.code, message: words, heading, offersSignIn });
}

/**
 * Lets somebody in at a page about a document, or turns them away. A former address leads on to the present one. Visitors
 * get the cookie by which their readings are told apart. `records` enters a refusal in the ledger.
 */
export async function enter(event: RequestEvent, slug: string, action: Action, records = true): Promise<LetIn> {
	const ask = askOf(event, slug);
	let entered: LetIn;
	try {
		entered = await (records ? letInOrRecord(ask, action) : letIn(ask, action));
	} catch (refusal) {
		turnAway(refusal);
	}
	if (entered.found.slug !== slug) redirect(308, event.url.pathname.replace(`/d/${slug}`, `/d/${entered.found.slug}`) + event.url.search);
	if (!entered.caller.person && !event.cookies.get(readerCookie)) {
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
