// One topic of the handbook.
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';
import { staff } from '$lib/server/guard/guard';
import { topicOf } from '$lib/ui/help/topics';

export const load: PageServerLoad = (event) => {
	staff(event);
	const topic = topicOf(event.params.topic);
	if (!topic) error(404, { code: 'not-found', message: 'The handbook has no such topic.' });
	return { topic };
};
