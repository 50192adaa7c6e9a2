// The groups with their people of today, and one made.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { GroupGiven } from '$lib/server/people/members';
import { addGroup, groupView, listGroups } from '$lib/server/people/directory';
import { compile } from '$lib/server/validate';

const checkBody = compile(GroupGiven);

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	return answer({ items: await listGroups(), next: null });
});
export const POST: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const { name, description } = await body(event, checkBody);
	const { slug } = await addGroup(name, actor, description);
	return answer(await groupView(slug), 201);
});
