// Changes the door of a page.
import type { RequestHandler } from './$types';
import { DoorChange } from '#core/access/door';
import { changePageDoor, pageDraft } from '$lib/server/placing/service';
import { answer, body, route, staff } from '$lib/server/http/api';
import { compile } from '$lib/server/validate';

const check = compile(DoorChange);

export const PATCH: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	const change = await body(event, check);
	await changePageDoor(event.params.id!, change, id);
	return answer({ door: (await pageDraft(event.params.id!)).door });
});
