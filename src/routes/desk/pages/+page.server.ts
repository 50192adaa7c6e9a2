// The pages of the site, and making a new one.
import { fail, redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';
import type { DoorChange } from '#core/access/door';
import { IanuaError } from '#core/errors';
import { layouts, type Layout } from '#core/placing/content';
import { patterns } from '#core/placing/patterns';
import { fieldsOf } from '$lib/server/http/form';
import { staff } from '$lib/server/guard/guard';
import { listGroups } from '$lib/server/people/directory';
import { mismatches } from '$lib/server/placing/mismatches';
import { addPage } from '$lib/server/placing/commands';
import { listPages } from '$lib/server/placing/views';
import { slugFor } from '$lib/server/slug';

export const load: PageServerLoad = async (event) => {
	staff(event);
	event.depends('ianua:pages');
	const { url } = event;
	const [pages, aside, found, groups] = await Promise.all([listPages(), listPages(true), mismatches(), listGroups()]);
	const deadEnds: Record<string, number> = {};
	for (const f of found) if (f.kind === 'dead-end') deadEnds[f.pageId] = (deadEnds[f.pageId] ?? 0) + 1;
	return {
		pages,
		aside,
		deadEnds,
		groups: groups.map(({ slug, name }) => ({ slug, name })),
		place: url.searchParams.get('place'),
		like: url.searchParams.get('like')
	};
};

/** The door of a new page by what was chosen: nothing for a page like another, which has its door. */
function doorFor(chosen: string): DoorChange | undefined {
	if (chosen === 'shut' || chosen === 'open') return { position: chosen };
	if (chosen === 'members') return { position: 'keyed', allMembers: true };
	if (chosen.startsWith('group:')) return { position: 'keyed', groups: [chosen.slice(6)] };
	return undefined;
}

export const actions: Actions = {
	default: async (event) => {
		const { id: actor } = staff(event);
		const form = await fieldsOf(event.request);
		const title = (form.title ?? '').trim();
		const given = (form.path ?? '').trim();
		const asked = (form.layout ?? 'article') as Layout;
		const layout = layouts.includes(asked) ? asked : 'article';
		const path = given ? (given.startsWith('/') ? given : `/${given}`) : `/${slugFor(title, 'page')}`;
		const begins = form.begins ?? '';
		const pattern = patterns.find((one) => begins === `as ${one}`);
		const like = begins.startsWith('like ') ? begins.slice(5) : undefined;
		const door = doorFor(form.door ?? '');
		const filled = { title, path: given, begins, layout, door: form.door, inNavigation: form.inNavigation !== undefined };
		if (!title) return fail(422, { ...filled, trouble: 'A page needs a title.' });
		let id: string;
		try {
			id = await addPage(
				{ title, path, ...(like ? { like } : pattern ? { pattern } : { layout }), inNavigation: filled.inNavigation, ...(door ? { door } : {}) },
				actor
			);
		} catch (error) {
			if (error instanceof IanuaError) return fail(error.status, { ...filled, trouble: error.message });
			throw error;
		}
		const place = event.url.searchParams.get('place');
		redirect(303, `/desk/pages/${id}${place ? `?place=${encodeURIComponent(place)}` : ''}`);
	}
};
