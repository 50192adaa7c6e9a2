// A reader's own page: what is new for them, where they can go on, what changed, what each of their groups opens; and of what they are told.
import { fail, redirect, type RequestEvent } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';
import { messages } from '#core/words/messages';
import { openDocumentsFor } from '$lib/server/documents/readable';
import { member } from '$lib/server/guard/guard';
import { fieldsOf } from '$lib/server/http/form';
import { redirectTarget } from '$lib/server/http/redirect-target';
import { fileRequestOf } from '$lib/server/http/api';
import { turnAway } from '$lib/server/http/page';
import { ownPage } from '$lib/server/news/own-page';
import { endFeed, endNews, feedAddress, NewsAsked, renewFeed, wishesOf, wishFor } from '$lib/server/news/wishes';
import { letIn } from '$lib/server/reading/chain';
import { compile } from '$lib/server/validate';

export const load: PageServerLoad = async (event) => {
	const { caller } = event.locals;
	const { id } = member(event);
	const [own, documents, wishes, feed, asked] = await Promise.all([
		ownPage(caller, id),
		openDocumentsFor(caller),
		wishesOf(id),
		feedAddress(id),
		askedBefore(event)
	]);
	return { own, documents, wishes, feed, asked };
};

const newsAsked = compile(NewsAsked);

/** The wish of a form: of all, of a document or of a folder. */
const wishIn = ({ about, every, document, folder }: Record<string, string>) =>
	newsAsked({ every, ...(about === 'document' ? { document } : about === 'folder' ? { folder } : {}) });

/** A wish that somebody had sent before they signed in, as the address brings it along (guard/table.ts); null where there is none, or no such document. */
async function askedBefore(event: RequestEvent) {
	const given = Object.fromEntries(event.url.searchParams);
	const asked = given.about ? wishIn(given) : null;
	if (!asked?.ok) return null;
	const { document = null, folder = null, every } = asked.value;
	const found = document === null ? null : await letIn(fileRequestOf(event, document), 'see').catch(() => null);
	if (document !== null && !found) return null;
	return { about: given.about, document, title: found?.found.title ?? null, folder, every };
}
const isId = (text: string | undefined): text is string => text !== undefined && /^[0-9a-f-]{36}$/.test(text);

/** Back to where it was asked for: the document's page, or here. */
function back(event: RequestEvent, to: string | undefined, done: 'set' | 'ended') {
	const target = to === undefined ? null : redirectTarget(to);
	if (target) redirect(303, target);
	return { done: messages[event.locals.language].news[done] as string };
}

export const actions: Actions = {
	/** Asks to be told: of a document, of a folder, or of all. */
	tell: async (event) => {
		const { id } = member(event);
		const { to, ...given } = await fieldsOf(event.request);
		const asked = wishIn(given);
		if (!asked.ok) return fail(422, { trouble: messages[event.locals.language].account.didNotWork as string });
		// a document that they may not open is none to them
		const found = asked.value.document === undefined ? null : await letIn(fileRequestOf(event, asked.value.document), 'see').catch(turnAway);
		await wishFor(id, asked.value, found?.found.id ?? null, event.locals.language);
		return back(event, to, 'set');
	},
	/** Ends one wish, or all of them. */
	end: async (event) => {
		const { id } = member(event);
		const { wish, to } = await fieldsOf(event.request);
		// something else than an id means none of them, and never all
		if (wish !== undefined && !isId(wish)) return fail(422, { trouble: messages[event.locals.language].account.didNotWork as string });
		await endNews(id, wish ?? null);
		return back(event, to, 'ended');
	},
	/** Gives the feed an address, another one, or none any more. */
	feed: async (event) => {
		const { id } = member(event);
		const { end } = await fieldsOf(event.request);
		await (end ? endFeed(id) : renewFeed(id));
		return {};
	}
};
