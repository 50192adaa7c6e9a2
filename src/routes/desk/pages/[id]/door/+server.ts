// Changes the door of a page.
import type { RequestHandler } from './$types';
import { DoorChange } from '#core/access/door';
import { changePageDoor, pageDraft } from '$lib/server/placing/pages';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { mismatches } from '$lib/server/placing/mismatches';
import { compile } from '$lib/server/validate';

const check = compile(DoorChange);

export const PATCH: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const id = event.params.id!;
	const before = await changePageDoor(id, await body(event, check), actor);
	return answer({ door: (await pageDraft(id)).door, before, mismatches: await mismatches({ page: id, draft: true }) });
});
