// Members: listed, and one added.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
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
	const offset = Number(cursor ?? 0);
	const { items, total } = await listMembers({ q, group, standing, offset, limit });
	return answer({ items, next: offset + items.length < total ? String(offset + items.length) : null, total });
});

export const POST: RequestHandler = route(async (event) => {
	const person = staff(event);
	const { invite, password, ...given } = await body(event, checkBody);
	const id = await addMember({ ...given, password: password === undefined ? null : await hashPassword(password) }, person.id);
	if (invite) await inviteMember(id, person);
	return answer(await memberView(id), 201);
});
