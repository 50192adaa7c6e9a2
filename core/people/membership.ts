// Memberships of one person, changed by what is said of a group. Days are YYYY-MM-DD in the site's zone; null is open.
import { dayAfter } from '../readership/period';

export interface Membership {
	/** The group's address. */
	readonly group: string;
	readonly from: string | null;
	readonly until: string | null;
}

/** What somebody is to have in a group; a day that is not given stays as it is, or is open. */
export interface Joining {
	readonly group: string;
	readonly from?: string | null | undefined;
	readonly until?: string | null | undefined;
}

const isOver = ({ until }: Membership, today: string) => until !== null && until < today;
/** What has no end comes last. */
const endOf = ({ until }: Membership) => until ?? '9999';

/**
 * Memberships once somebody is put into a group: of those that are not over, the one that ends last takes the days; where all are over, or there
 * is none, there is one more, from today unless said. `joined([], { group: 'friends' }, '2026-12-01')` → friends from 2026-12-01.
 */
export function joined(theirs: readonly Membership[], { group, from, until }: Joining, today: string): Membership[] {
	const [last] = theirs.filter((m) => m.group === group && !isOver(m, today)).sort((a, b) => (endOf(a) < endOf(b) ? 1 : -1));
	if (!last) return [...theirs, { group, from: from === undefined ? today : from, until: until ?? null }];
	const days = { from: from === undefined ? last.from : from, until: until === undefined ? last.until : until };
	return theirs.map((m) => (m === last ? { group, ...days } : m));
}

/** Memberships once somebody is taken out of a group: what goes on ends with yesterday, what has not begun by then is gone. */
export function left(theirs: readonly Membership[], group: string, today: string): Membership[] {
	const yesterday = dayAfter(today, -1);
	return theirs.flatMap((m) => {
		if (m.group !== group || isOver(m, today)) return [m];
		return m.from !== null && m.from > yesterday ? [] : [{ ...m, until: yesterday }];
	});
}
