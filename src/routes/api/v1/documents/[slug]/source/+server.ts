// The web address a document came from: watch it, compare now, see what changed beside one's own, take it.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { body, documentAnswer, presentSlug, route } from '$lib/server/http/api';
import { SourceAction, WatchChange } from '$lib/server/intake/contract';
import { checkDone } from '$lib/server/intake/bring-in';
import { bringBeside, compareSource, leaveAlone, setWatch, takeChanged } from '$lib/server/intake/source';
import { compile } from '$lib/server/validate';

const [checkWatch, checkAction] = [compile(WatchChange), compile(SourceAction)];

export const PATCH: RequestHandler = route(async (event) => {
	staff(event);
	const { watch } = await body(event, checkWatch);
	const slug = await presentSlug(event.params.slug);
	await setWatch(slug, watch);
	return documentAnswer(slug);
});

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	const { do: action } = await body(event, checkAction);
	const slug = await presentSlug(event.params.slug);
	if (action === 'compare') await compareSource(slug);
	else if (action === 'leave') await leaveAlone(slug);
	else await checkDone(await (action === 'beside' ? bringBeside : takeChanged)(slug, id), 15_000);
	return documentAnswer(slug);
});
