// Asking to be let in. Whoever is let in already goes on to the document; whom staff could not let in has nothing to ask here.
import { error, fail, redirect, type RequestEvent } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';
import { IanuaError } from '#core/errors';
import { fieldsOf } from '$lib/server/http/form';
import { KnockGiven, takeKnock } from '$lib/server/access/knocks';
import { fileRequestOf } from '$lib/server/http/api';
import { turnAway } from '$lib/server/http/page';
import { letIn, TurnedAway } from '$lib/server/reading/chain';
import { compile } from '$lib/server/validate';

const check = compile(KnockGiven);

/** The refusal that somebody knocks at. */
async function refusalOf(event: RequestEvent): Promise<TurnedAway> {
	// the route has this parameter
	const slug = event.params.slug!;
	try {
		await letIn(fileRequestOf(event, slug), 'read');
	} catch (refusal) {
		if (!(refusal instanceof TurnedAway) || !refusal.page.knock) turnAway(refusal);
		return refusal;
	}
	redirect(303, `/d/${slug}`);
}

export const load: PageServerLoad = async (event) => {
	const { page } = await refusalOf(event);
	return { reason: page.reason ?? page.words, email: event.locals.caller.person?.email ?? '' };
};

export const actions: Actions = {
	default: async (event) => {
		const refusal = await refusalOf(event);
		const form = await fieldsOf(event.request);
		const again = { email: form.email ?? '', words: form.words ?? '' };
		const result = check(form);
		if (!result.ok) return fail(422, { ...again, trouble: 'Say in a sentence why you would like to come in, and at which mail address you can be answered.' });
		try {
			await takeKnock(refusal, result.value);
		} catch (trouble) {
			if (!(trouble instanceof IanuaError)) throw trouble;
			if (trouble.code === 'not-found') error(404, { code: 'not-found', message: trouble.message });
			return fail(trouble.status, { ...again, trouble: trouble.message });
		}
		return { done: true };
	}
};
