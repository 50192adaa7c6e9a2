// The messages to one program, the newest first.
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { owner } from '$lib/server/guard/guard';
import { answer, route } from '$lib/server/http/api';
import { afterOf, cursorAfter } from '$lib/server/http/cursor';
import { isId } from '$lib/server/id';
import { MessagesQuery } from '$lib/server/readership/contract';
import { messages } from '$lib/server/readership/messages';
import { checked, compile } from '$lib/server/validate';

const check = compile(MessagesQuery, { coerce: true });

export const GET: RequestHandler = route(async (event) => {
	owner(event);
	const { id } = event.params;
	if (!isId(id)) throw new IanuaError('not-found');
	const { state, limit, cursor } = checked(check, Object.fromEntries(event.url.searchParams));
	const after = afterOf(cursor, 'sent', (value) => !Number.isNaN(Date.parse(value)));
	const { items, next } = await messages({ webhook: id, state, limit, after });
	return answer({ items, next: next && cursorAfter('sent', next) });
});
