// What the addresses of the ledger may say.
import { Type, type Static } from '@sinclair/typebox';
import { endOfDay, isDay, startOfDay } from '#core/access/hours';
import { site } from '../site/site';
import type { LedgerQuery as Wanted } from './ledger';

const Bound = Type.Union([Type.String({ format: 'date' }), Type.String({ format: 'date-time' })]);
const cursor = { maxLength: 200 };

export const LedgerQuery = Type.Object(
	{
		from: Type.Optional({ ...Bound, description: 'entries from this instant (RFC 3339) or day (in the site’s zone) on' }),
		until: Type.Optional({ ...Bound, description: 'entries before this instant, or through the whole of this day' }),
		order: Type.Optional(
			Type.Union([Type.Literal('newest'), Type.Literal('oldest')], {
				description: 'which come first; the newest where nothing is said. With the oldest, those of the last minute come with a later answer'
			})
		),
		cursor: Type.Optional(Type.String({ ...cursor, description: '`next` of the answer before' })),
		since: Type.Optional(Type.String({ ...cursor, description: '`since` of an earlier answer: what came after all that it had, the oldest first' })),
		counted: Type.Optional(Type.Boolean({ description: 'with what is only counted: placements shown, document pages looked at' })),
		limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 500, description: 'how many at most' }))
	},
	{ additionalProperties: false }
);

/** The time that a query names, in instants. */
export async function timeOf<Q extends Static<typeof LedgerQuery>>({
	from,
	until,
	...rest
}: Q): Promise<Omit<Q, 'from' | 'until'> & Pick<Wanted, 'from' | 'until'>> {
	const { zone } = await site();
	return {
		...rest,
		...(from === undefined ? {} : { from: new Date(isDay(from) ? startOfDay(from, zone) : from) }),
		...(until === undefined ? {} : { until: new Date(isDay(until) ? endOfDay(until, zone) : until) })
	};
}

/** Whose entries a report lists under its figures, and from where on. */
export function entriesQuery(url: URL): { of: 'readers' | 'staff' | 'all'; cursor: string | null } {
	const of = url.searchParams.get('of');
	return { of: of === 'staff' || of === 'all' ? of : 'readers', cursor: url.searchParams.get('cursor') };
}
