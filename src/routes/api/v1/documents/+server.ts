// GET lists documents, POST brings one in.
import { Type } from '@sinclair/typebox';
import type { RequestHandler } from './$types';
import { positions } from '#core/access/door';
import { documentJson, documentView, listDocuments, orders } from '$lib/server/documents/service';
import { answer, route, staff } from '$lib/server/http/api';
import { bringIn } from '$lib/server/intake/bring-in';
import { withUpload } from '$lib/server/intake/multipart';
import { checked, compile } from '$lib/server/validate';

const Query = Type.Object(
	{
		q: Type.Optional(Type.String({ maxLength: 200 })),
		folder: Type.Optional(Type.String({ maxLength: 200 })),
		door: Type.Optional(Type.Union(positions.map((p) => Type.Literal(p)))),
		condition: Type.Optional(Type.Union([Type.Literal('sound'), Type.Literal('look')])),
		order: Type.Optional(Type.Union(orders.map((o) => Type.Literal(o)))),
		cursor: Type.Optional(Type.String({ pattern: '^\\d{1,9}$' })),
		limit: Type.Optional(Type.Integer({ minimum: 1, maximum: 200 }))
	},
	{ additionalProperties: false }
);
const checkQuery = compile(Query, { coerce: true });

export const GET: RequestHandler = route(async (event) => {
	staff(event);
	const { cursor, limit = 50, ...query } = checked(checkQuery, Object.fromEntries(event.url.searchParams));
	const offset = Number(cursor ?? 0);
	const list = await listDocuments({ ...query, limit, offset });
	const items = list.items.map(({ slug, title, folder, pages, bytes, sha256, condition, door, id }) => ({
		id,
		slug,
		title,
		folder,
		pages,
		bytes,
		sha256,
		condition,
		door
	}));
	const next = offset + items.length < list.total ? String(offset + items.length) : null;
	return answer({ items, next, counts: { door: list.doors, look: list.looks, total: list.total, all: list.all } });
});

export const POST: RequestHandler = route(async (event) => {
	const { id } = staff(event);
	const { slug } = await withUpload(event.request, ({ fileName, stream, fields }) =>
		bringIn(stream, { fileName, title: fields.title, folder: fields.folder }, id)
	);
	return answer(documentJson((await documentView(slug))!), 201);
});
