// The ledger of a document, newest first.
import { Type } from '@sinclair/typebox';
import type { RequestHandler } from './$types';
import { IanuaError } from '#core/errors';
import { documentView } from '$lib/server/documents/view';
import { answer, route, staff } from '$lib/server/http/api';
import { ledger } from '$lib/server/readership/service';
import { checked, compile } from '$lib/server/validate';

const checkQuery = compile(
	Type.Object(
		{
			from: Type.Optional(Type.String({ format: 'date-time' })),
			until: Type.Optional(Type.String({ format: 'date-time' })),
			cursor: Type.Optional(Type.String({ maxLength: 200 })),
			limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 500 }))
		},
		{ additionalProperties: false }
	),
	{ coerce: true }
);

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const { from, until, ...query } = checked(checkQuery, Object.fromEntries(event.url.searchParams));
	const view = await documentView(event.params.slug!);
	if (!view) throw new IanuaError('not-found');
	const { items, next } = await ledger({ document: view.id, from: from ? new Date(from) : undefined, until: until ? new Date(until) : undefined, ...query });
	return answer({ items, next });
});
