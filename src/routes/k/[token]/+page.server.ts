// A key's address: remembers the key for this browser and leads on to the document; asks for its password where it has one.
import { fail, redirect, type RequestEvent } from '@sveltejs/kit';

import { Type } from '@sinclair/typebox';
import type { Actions, PageServerLoad } from './$types';
import { decide, visitor, type RefusedCode } from '#core/access/decide';
import { IanuaError } from '#core/errors';
import { messages } from '#core/words/messages';
import { fieldsOf } from '$lib/server/http/form';
import { keyAt, keyCookie, type FoundKey } from '$lib/server/access/keys';
import { fileRequestOf } from '$lib/server/http/api';
import { accountOf } from '$lib/server/http/auth-call';
import { turnAwayFromPage } from '$lib/server/http/page';
import { countTry, wentWell } from '$lib/server/people/attempts';
import { presentKey } from '$lib/server/reading/chain';
import { compile } from '$lib/server/validate';

const keptFor = 180 * 24 * 3600;

async function keyOrNothing(event: RequestEvent, password?: string): Promise<FoundKey> {
	// the route has this parameter
	const key = await keyAt(event.params.token!, event.request.headers.get('cookie'), password);
	if (key) return key;
	return turnAwayFromPage({ code: 'shut' }, null, event.locals.language);
}

/** Remembers the key and goes on to the document, whose door says the rest. */
async function goOn(event: RequestEvent, key: FoundKey): Promise<never> {
	event.cookies.set(keyCookie, key.remembered, {
		path: '/',
		httpOnly: true,
		sameSite: 'lax',
		maxAge: keptFor,
		secure: event.url.protocol === 'https:'
	});
	await presentKey(fileRequestOf(event, key.slug), key.held);
	redirect(303, `/d/${key.slug}`);
}

export const load: PageServerLoad = async (event) => {
	event.setHeaders({ 'x-robots-tag': 'noindex, nofollow' });
	const key = await keyOrNothing(event);
	// the key by itself, as if its document's door were keyed: what is wrong with the door is said there
	const bare = { setAside: false, follows: null, door: { ...keyedDoor, allow: key.held.allow } };
	const { allowed, reasons } = decide({ ...visitor, keys: [key.held] }, bare, 'see', Date.now());
	if (allowed) return goOn(event, key);
	const [{ code, at }] = reasons;
	if (code === 'key-password') return {};
	return turnAwayFromPage({ code: code as RefusedCode, at }, null, event.locals.language);
};

const keyedDoor = {
	position: 'keyed',
	allMembers: false,
	groups: [],
	people: [],
	hours: { from: null, until: null },
	listed: false,
	announced: false
} as const;

const check = compile(Type.Object({ password: Type.String({ minLength: 1, maxLength: 200 }) }));

export const actions: Actions = {
	default: async (event) => {
		const result = check(await fieldsOf(event.request));
		if (!result.ok) return fail(422, { trouble: accountOf(event).giveKeyPassword });
		const { held } = await keyOrNothing(event);
		try {
			await countTry(`key ${held.id}`, event.getClientAddress());
		} catch (refusal) {
			if (refusal instanceof IanuaError) return fail(refusal.status, { trouble: messages[event.locals.language].site.tooManyTries as string });
			throw refusal;
		}
		const key = await keyOrNothing(event, result.value.password);
		if (key.held.wantsPassword) return fail(401, { trouble: accountOf(event).notKeyPassword });
		await wentWell(`key ${held.id}`, event.getClientAddress());
		return goOn(event, key);
	}
};
