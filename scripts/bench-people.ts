// Groups, members and memberships for benches: a third without end, some lapsed, some to come.
import { newId } from '#server/id';
import type { sql } from '#server/db/client';
import type { Random } from '../demo/random';

/** Puts in so many groups, and members with one to three memberships each; names begin with `mark`. */
export async function makePeople(s: ReturnType<typeof sql>, random: Random, mark: string, groupCount: number, memberCount: number) {
	const day = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
	const groups = Array.from({ length: groupCount }, (_, i) => ({ id: newId(), slug: `${mark}-${i}`, name: `${mark} ${i}` }));
	await s`insert into member_group ${s(groups)}`;
	const people = Array.from({ length: memberCount }, (_, i) => ({ id: newId(), name: `${mark} ${i}`, email: `${mark}-${i}@example.org`, role: 'member' }));
	const memberships = people.flatMap((p) =>
		Array.from({ length: 1 + Math.floor(random.next() * 3) }, () => ({
			id: newId(),
			person_id: p.id,
			group_id: random.pick(groups).id,
			from_day: random.next() < 0.5 ? day(-Math.floor(random.next() * 900)) : null,
			until_day: random.next() < 0.5 ? day(Math.floor(random.next() * 900) - 200) : null
		}))
	);
	for (let first = 0; first < people.length; first += 2000) await s`insert into person ${s(people.slice(first, first + 2000))}`;
	for (let first = 0; first < memberships.length; first += 5000) await s`insert into membership ${s(memberships.slice(first, first + 5000))}`;
	return { groups, people };
}
