// A page of the site. The root of a site without a front page lists what the caller may open.
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';
import { messages } from '#core/words/messages';
import { keysOfBrowser } from '$lib/server/access/keys';
import { turnAway, turnAwayFromPage } from '$lib/server/http/page';
import { placeOf } from '$lib/server/people/attempts';
import { openDocumentsFor } from '$lib/server/documents/readable';
import { listQueryOf } from '$lib/server/placing/catalogue';
import { leadOn } from '$lib/server/placing/lead-on';
import { pageAt } from '$lib/server/placing/page-view';
import { site } from '$lib/server/site/site';

// a page of the site is words and links: no script of ours but the one that reads over it
export const csr = false;

export const load: PageServerLoad = async (event) => {
	const { params, locals, request, url, getClientAddress } = event;
	const path = `/${params.path}`;
	const { searchParams } = url;
	const query = listQueryOf(searchParams, locals.language, placeOf(getClientAddress()));
	const at = (where: string) => pageAt(where, locals.caller, (id) => keysOfBrowser(locals.caller, request.headers.get('cookie'), id), query);
	const [first, { front }] = await Promise.all([at(path).catch(turnAway), site()]);
	// a site may name another of its pages as the one that stands at the root
	const answer = first.state === 'none' && path === '/' && front ? await at(front).catch(turnAway) : first;
	if (answer.state === 'seen') locals.sameUntil = answer.until;
	if (answer.state === 'seen') return { page: answer.page, documents: [], reading: searchParams.get('read'), query: searchParams.toString() };
	if (answer.state === 'refused') await turnAwayFromPage(answer.reason, answer.turnedAway, locals.language, answer.announced);
	if (path === '/') return { page: null, documents: await openDocumentsFor(locals.caller), reading: null, query: '' };
	await leadOn(event);
	error(404, { code: 'not-found', message: messages[locals.language].site.nothingHereWords as string });
};
