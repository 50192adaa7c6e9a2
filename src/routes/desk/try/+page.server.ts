// Trying a door with the real page in a frame: for whom, when, and why they get what they get.
import type { PageServerLoad } from './$types';
import { decide, type Action } from '#core/access/decide';
import { isInstant } from '#core/access/hours';
import { staff } from '$lib/server/guard/guard';
import { keysOf } from '$lib/server/access/key-list';
import { keysOfBrowser } from '$lib/server/access/keys';
import { toTried, trialOf, type Tried } from '$lib/server/access/try-door';
import { IanuaError } from '#core/errors';
import { listGroups } from '$lib/server/people/directory';
import { listPages, guardedPage } from '$lib/server/placing/views';
import { resolve } from '$lib/server/reading/resolve';

export const load: PageServerLoad = async (event) => {
	staff(event);
	event.depends('ianua:try');
	const { url } = event;
	const asked = url.searchParams.get('path') ?? '/';
	const path = /^\/(?![/\\])/.test(asked) && !/^\/(?:desk|api)(?:\/|$)/.test(asked) ? asked.split(/[?#]/)[0]! : '/';
	const as = url.searchParams.get('as') ?? 'visitor';
	const moment = url.searchParams.get('at') ?? '';
	const at = isInstant(moment) ? moment : '';
	const slug = /^\/d\/([a-z0-9-]+)/.exec(path)?.[1] ?? null;
	const [groups, pages, found] = await Promise.all([listGroups(), listPages(), slug ? resolve(slug) : null]);
	const page = pages.find((p) => p.path === path) ?? null;
	let trouble = '';
	let tried: Partial<Record<Action, Tried>> | null = null;
	try {
		const trial = await trialOf(new URLSearchParams({ try: as, at }));
		if (!trial) trouble = as === 'member:' ? '' : 'Nobody is meant by that.';
		else if (found || page) {
			// without a document there is a page
			const thing = found ? found.thing : await guardedPage(page!.id);
			const keys = found ? await keysOfBrowser(trial, null, found.id) : [];
			const who = trial.who.kind === 'staff' ? trial.who : { ...trial.who, keys };
			tried = Object.fromEntries(
				// the trial was begun above
				(found ? (['read', 'save', 'print'] as const) : (['read'] as const)).map((action) => [action, toTried(decide(who, thing, action, trial.trial!.at))])
			);
		}
	} catch (refusal) {
		if (!(refusal instanceof IanuaError)) throw refusal;
		trouble = refusal.message;
	}
	return {
		path,
		as,
		at,
		trouble,
		tried,
		name: found?.title ?? page?.title ?? null,
		slug: found?.slug ?? null,
		groups: groups.map(({ slug: s, name }) => ({ slug: s, name })),
		pages: pages.map(({ path: p, title }) => ({ path: p, title })),
		keys: found ? (await keysOf(found.slug)).map(({ id, label }) => ({ id, label })) : []
	};
};
