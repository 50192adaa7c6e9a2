// A member's own page: who they are here, and what they may read.
import { redirect } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';
import { openDocumentsFor } from '$lib/server/documents/open-to';
import { membershipsOf } from '$lib/server/people/service';
import { navigationFor } from '$lib/server/placing/service';

export const load: PageServerLoad = async ({ locals }) => {
	const { person } = locals.caller;
	if (!person) redirect(303, '/sign-in?to=/me');
	const [memberships, documents, navigation] = await Promise.all([membershipsOf(person.id), openDocumentsFor(locals.caller), navigationFor(locals.caller)]);
	return { memberships, documents, navigation };
};
