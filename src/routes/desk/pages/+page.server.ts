// The pages of the site, and making a new one.
import { fail, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';
import { slugOf } from '#core/documents/address';
import { IanuaError } from '#core/errors';
import { layouts, type Layout } from '#core/placing/content';
import { fieldsOf } from '$lib/server/http/form';
import { staff } from '$lib/server/guard/guard';
import { mismatches } from '$lib/server/placing/mismatches';
import { addPage } from '$lib/server/placing/commands';
import { listPages } from '$lib/server/placing/views';

export const load: PageServerLoad = async (event) => {
	staff(event);
	event.depends('ianua:pages');
	const { url } = event;
	const [pages, aside, found] = await Promise.all([listPages(), listPages(true), mismatches()]);
	const deadEnds: Record<string, number> = {};
	for (const f of found) if (f.kind === 'dead-end') deadEnds[f.pageId] = (deadEnds[f.pageId] ?? 0) + 1;
	return { pages, aside, deadEnds, place: url.searchParams.get('place'), like: url.searchParams.get('like') };
};

export const actions: Actions = {
	default: async (event) => {
		const { id: actor } = staff(event);
		const form = await fieldsOf(event.request);
		const title = (form.title ?? '').trim();
		const given = (form.path ?? '').trim();
		const asked = (form.layout ?? 'article') as Layout;
		const layout = layouts.includes(asked) ? asked : 'article';
		const path = given ? (given.startsWith('/') ? given : `/${given}`) : `/${slugOf(title, 'page')}`;
		const like = form.like || undefined;
		const filled = { title, path: given, like, layout, inNavigation: form.inNavigation !== undefined };
		if (!title) return fail(422, { ...filled, trouble: 'A page needs a title.' });
		let id: string;
		try {
			id = await addPage({ title, path, ...(like ? { like } : { layout }), inNavigation: filled.inNavigation }, actor);
		} catch (error) {
			if (error instanceof IanuaError) return fail(error.status, { ...filled, trouble: error.message });
			throw error;
		}
		const place = event.url.searchParams.get('place');
		redirect(303, `/desk/pages/${id}${place ? `?place=${encodeURIComponent(place)}` : ''}`);
	}
};
