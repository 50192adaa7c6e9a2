// What the addresses of the ledger may say.
import { Type } from '@sinclair/typebox';

export const LedgerQuery = Type.Object(
	{
		from: Type.Optional(Type.String({ format: 'date-time', description: 'entries from this instant on, RFC 3339' })),
		until: Type.Optional(Type.String({ format: 'date-time', description: 'entries before this instant, RFC 3339' })),
		cursor: Type.Optional(Type.String({ maxLength: 200, description: '`next` of the answer before' })),
		limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 500, description: 'how many at most' }))
	},
	{ additionalProperties: false }
);

/** Whose entries a report lists under its figures, and from where on. */
export function entriesQuery(url: URL): { of: 'readers' | 'staff' | 'all'; cursor: string | null } {
	const of = url.searchParams.get('of');
	return { of: of === 'staff' || of === 'all' ? of : 'readers', cursor: url.searchParams.get('cursor') };
}
