// Who may do what with a document, as a sentence and as numbers.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { documentView } from '$lib/server/documents/view';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const view = await documentView(event.params.slug);
	if (!view) throw new IanuaError('not-found');
	const { sentence, count, inForce } = view.door;
	return answer({ sentence, people: count, anyone: inForce === 'open' || inForce === 'ajar' });
});
