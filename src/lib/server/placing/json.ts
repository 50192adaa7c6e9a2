// A page as the API gives it.
import { fieldsShown } from '#core/access/door';
import { Type, type Static } from '@sinclair/typebox';
import type { PageDraft } from './pages';

/** The path that an address of the API names: `/api/v1/pages/volunteering`, or with the slash as %2F. */
export const pathOf = (param: string): string => `/${param.replace(/^\/+/, '')}`;

export const Publishing = Type.Object(
	{
		published: Type.Optional(Type.Boolean()),
		/** An instant to come; null calls it off. */
		at: Type.Optional(Type.Union([Type.String({ format: 'date-time' }), Type.Null()])),
		/** Where there are dead ends, nothing is published and they are told: for who can be asked. */
		ask: Type.Optional(Type.Boolean())
	},
	{ additionalProperties: false }
);

export type Publishing = Static<typeof Publishing>;

export function pageJson({ id: _id, doorId: _doorId, door, setAsideAt: _aside, ...page }: PageDraft) {
	const { follows: _follows, ...fields } = fieldsShown(door);
	const { sentence, count, changedAt, changedBy } = door;
	return { ...page, door: { ...fields, sentence, count, changedAt, changedBy } };
}
