// The documents chosen, in one zip.
import type { RequestHandler } from './$types';
import { dayOf } from '#core/access/hours';
import { IanuaError } from '#core/errors';
import { staff } from '$lib/server/guard/guard';
import { fileRequestOf, route } from '$lib/server/http/api';
import { zipOf } from '$lib/server/reading/zip';
import { site } from '$lib/server/site/site';

export const POST: RequestHandler = route(async (event) => {
	staff(event);
	const form = await event.request.formData();
	const slugs = [...new Set(form.getAll('document').map(String))];
	if (!slugs.length) throw new IanuaError('not-valid', { detail: 'no document is chosen' });
	const { zone } = await site();
	return zipOf(
		slugs.map((slug) => fileRequestOf(event, slug)),
		`documents-${dayOf(Date.now(), zone)}.zip`
	);
});
