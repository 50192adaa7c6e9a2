// Messages to programs elsewhere, one by one.
import type { PageServerLoad } from './$types';
import { owner } from '$lib/server/guard/guard';
import { afterOf, cursorAfter } from '$lib/server/http/cursor';
import { isId } from '$lib/server/id';
import { messages, messageStates } from '$lib/server/readership/messages';
import { webhooks } from '$lib/server/readership/webhooks';
import { turnAway } from '$lib/server/http/page';

export const load: PageServerLoad = async (event) => {
	owner(event);
	event.depends('ianua:upkeep');
	const { searchParams } = event.url;
	const state = messageStates.find((one) => one === searchParams.get('state'));
	const to = searchParams.get('to') ?? '';
	const read = (async () => {
		const after = afterOf(searchParams.get('after') ?? undefined, 'sent', (value) => !Number.isNaN(Date.parse(value)));
		return messages({ webhook: isId(to) ? to : undefined, state, after });
	})();
	const [{ items, next }, programs] = await Promise.all([read.catch(turnAway), webhooks()]);
	return { items, next: next && cursorAfter('sent', next), programs, query: { to, state: state ?? '' } };
};
