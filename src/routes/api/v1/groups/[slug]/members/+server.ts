// Everybody in a group at once: with ?preview what it would change, without, all of it or nothing.
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { GroupMembersBody, GroupMembersQuery } from '$lib/server/people/contract';
import { groupView } from '$lib/server/people/directory';
import { bringInTable, linesToTell, membersAsTable, previewTable } from '$lib/server/people/table';
import { checked, compile } from '$lib/server/validate';

const checkQuery = compile(GroupMembersQuery);
const checkBody = compile(GroupMembersBody);

export const PUT: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const { preview } = checked(checkQuery, Object.fromEntries(event.url.searchParams));
	const { members } = await body(event, checkBody);
	const { slug } = await groupView(event.params.slug);
	const look = preview !== undefined && preview !== 'false';
	const [table, wish] = [membersAsTable(members, slug), { end: { groups: [slug] } }];
	const { added, changed, same, wrong, newGroups, endless, ended, lines } = look ? await previewTable(table, wish) : await bringInTable(table, wish, actor);
	return answer({ added, changed, same, wrong, newGroups, endless, ended, lines: linesToTell(lines), done: !look });
});
