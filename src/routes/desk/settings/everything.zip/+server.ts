// The whole site in open formats, in one zip (server/upkeep/export). Owners only: the names of people and what they read stand in it.
import type { RequestHandler } from './$types';
import { dayOf } from '#core/access/hours';
import { owner } from '$lib/server/guard/guard';
import { route } from '$lib/server/http/api';
import { zipAnswer } from '$lib/server/http/zip';
import { site } from '$lib/server/site/site';
import { exportFiles, noteExport } from '$lib/server/upkeep/export';

export const GET: RequestHandler = route(async (event) => {
	const { id: actor } = owner(event);
	await noteExport(actor);
	const { zone } = await site();
	return zipAnswer(exportFiles(), `everything-${dayOf(Date.now(), zone)}.zip`);
});
