// A page as the API gives it.
import { fieldsShown } from '#core/access/door';
import type { PageDraft } from './views';

/** The path that an address of the API names: `/api/v1/pages/volunteering`, or with the slash as %2F. */
export const pathOf = (param: string): string => `/${param.replace(/^\/+/, '')}`;

/** A page as the API shows it, without ids of our own. */
export function pageJson({ id: _id, doorId: _doorId, door, setAsideAt: _aside, ...page }: PageDraft) {
	const { follows: _follows, ...fields } = fieldsShown(door);
	const { sentence, count, changedAt, changedBy } = door;
	return { ...page, door: { ...fields, sentence, count, changedAt, changedBy } };
}
