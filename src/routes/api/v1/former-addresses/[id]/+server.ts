// A former address that is let go.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { staff } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { isId } from '$lib/server/id';
import { dropFormerAddress } from '$lib/server/placing/former';

export const DELETE: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	if (!isId(event.params.id)) throw new IanuaError('not-found');
	return answer({ before: await dropFormerAddress(event.params.id, id) });
});
