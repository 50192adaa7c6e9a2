// Whom a preview is for.
import { visitor } from '#core/access/decide';
import { always } from '#core/access/hours';
import { IanuaError } from '#core/errors';
import { listGroups } from '../people/directory';
import { personAt, type Caller } from '../people/who';

/** Stands for a member who is in one group and nobody in particular: no door admits it by name. */
const nobodyInParticular = '00000000-0000-0000-0000-000000000000';

/** The caller that `visitor`, `staff`, `group:<slug>` or `member:<email>` stands for. */
export async function previewer(as: string, staff: Caller): Promise<Caller> {
	if (as === 'staff') return staff;
	if (as.startsWith('group:')) {
		const group = (await listGroups()).find((g) => as === `group:${g.slug}`);
		if (group) return { who: { kind: 'member', id: nobodyInParticular, suspended: false, memberships: [{ group: group.id, span: always }] }, person: null };
	}
	if (as.startsWith('member:') && as.length > 7) {
		const caller = await personAt(as.slice(7));
		if (!caller) throw new IanuaError('person-unknown', { email: as.slice(7) });
		return caller;
	}
	return { who: visitor, person: null };
}
