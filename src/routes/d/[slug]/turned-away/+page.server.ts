// The page for somebody whom another address of the document refused (the file, a cover): it words the refusal, no more.
import { redirect } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';
import { enter } from '$lib/server/http/page';

export const load: PageServerLoad = async (event) => {
	await enter(event, event.params.slug, 'save', false);
	redirect(303, `/d/${event.params.slug}`);
};
