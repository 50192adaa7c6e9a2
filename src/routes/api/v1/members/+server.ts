// Members: listed, and one added.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { afterOf, cursorAfter } from '$lib/server/http/cursor';
import { MembersQuery } from '$lib/server/people/contract';
import { addMember, inviteMember, memberView, MemberGiven } from '$lib/server/people/members';
import { hashPassword } from '$lib/server/people/auth';
import { listMembers } from '$lib/server/people/members';
import { checked, compile } from '$lib/server/validate';

const checkQuery = compile(MembersQuery, { coerce: true });
const checkBody = compile(MemberGiven);

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const { q, group, standing, cursor, limit = 50 } = checked(checkQuery, Object.fromEntries(event.url.searchParams));
	// one more tells whether the list goes on
	const { items: more, total } = await listMembers({ q, group, standing, after: afterOf(cursor, 'name'), limit: limit + 1 });
	const items = more.slice(0, limit);
	const last = items.at(-1);
	return answer({ items, next: last && more.length > limit ? cursorAfter('name', { value: last.name, id: last.id }) : null, total });
});

export const POST: RequestHandler = route(async (event) => {
	const person = staff(event);
	const { invite, password, ...given } = await body(event, checkBody);
	const id = await addMember({ ...given, password: password === undefined ? null : await hashPassword(password) }, person.id);
	if (invite) await inviteMember(id, person);
	return answer(await memberView(id), 201);
});
