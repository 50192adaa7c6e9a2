// What one is told by mail: a report every week or month, a first opening.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { setSubscription, SubscriptionGiven } from '$lib/server/readership/subscriptions';
import { compile } from '$lib/server/validate';

const check = compile(SubscriptionGiven);

export const PATCH: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	return answer(await setSubscription(id, await body(event, check)));
});
