// A frame shows the pass that the page around it gave it, and gets a grant for its document in a cookie of its own; or that page asks for the frame by a
// form that carries the pass, and the frame opens.
import type { RequestEvent, RequestHandler } from './$types';
import { Type } from '@sinclair/typebox';
import { IanuaError } from '#core/errors';
import { grantCookies, takePass } from '$lib/server/access/passes';
import { body, route } from '$lib/server/http/api';
import { formOf, isPlainForm } from '$lib/server/http/form';
import { checked, compile } from '$lib/server/validate';

const Pass = Type.String({ minLength: 1, maxLength: 8000 });
const check = compile(Type.Object({ pass: Pass, from: Type.String({ maxLength: 300 }) }, { additionalProperties: false }));
const checkForm = compile(Type.Object({ pass: Pass }));

function withGrant(grant: string, slug: string, status: number, location?: string): Response {
	const headers = new Headers({ 'cache-control': 'no-store', ...(location === undefined ? {} : { location }) });
	for (const cookie of grantCookies(grant, slug)) headers.append('set-cookie', cookie);
	return new Response(null, { status, headers });
}

export const POST: RequestHandler = route(async (event) => {
	const { slug } = event.params;
	if (isPlainForm(event.request)) return byForm(event, slug);
	const { pass, from } = await body(event, check);
	return withGrant(await takePass(pass, slug, from), slug, 204);
});

/** Leads on to the frame. One that is refused goes there too: the reader finds calm words, the website why (in the fragment, which the frame tells it). */
async function byForm({ request }: RequestEvent, slug: string): Promise<Response> {
	// in a frame alone: in a window of its own, a website could have a reader go on as somebody else
	const place = request.headers.get('sec-fetch-dest');
	if (place !== null && place !== 'iframe') throw new IanuaError('foreign-origin');
	const from = request.headers.get('origin');
	const { pass } = checked(checkForm, Object.fromEntries(await formOf(request)));
	const frame = `/embed/${encodeURIComponent(slug)}`;
	try {
		if (from === null || from === 'null')
			throw new IanuaError('pass-refused', { why: 'the browser does not say which website sent it (its page says no-referrer)' });
		return withGrant(await takePass(pass, slug, from), slug, 303, frame);
	} catch (error) {
		if (!(error instanceof IanuaError)) throw error;
		const why = error.code === 'pass-refused' ? `#${new URLSearchParams({ 'pass-refused': error.message }).toString()}` : '';
		return new Response(null, { status: 303, headers: { 'cache-control': 'no-store', location: frame + why } });
	}
}
