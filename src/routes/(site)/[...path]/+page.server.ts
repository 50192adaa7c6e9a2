// A page of the site. The root of a site without a front page lists what the caller may open.
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';
import { keysOfBrowser } from '$lib/server/access/keys';
import { turnAwayFromPage } from '$lib/server/http/page';
import { openDocumentsFor } from '$lib/server/documents/open-to';
import { navigationFor, pageAt } from '$lib/server/placing/service';

export const load: PageServerLoad = async ({ params, locals, request }) => {
	const path = `/${params.path}`;
	const [answer, navigation] = await Promise.all([
		pageAt(path, locals.caller, (id) => keysOfBrowser(locals.caller, request.headers.get('cookie'), id)),
		navigationFor(locals.caller)
	]);
	if (answer.state === 'seen') return { page: answer.page, navigation, documents: [] };
	if (answer.state === 'refused') await turnAwayFromPage(answer.reason, answer.turnedAway);
	if (path === '/') return { page: null, navigation, documents: await openDocumentsFor(locals.caller) };
	error(404, { code: 'not-found', message: 'There is nothing here for you at this address.', heading: 'Nothing here' });
};
