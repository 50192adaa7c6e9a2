// What the reading room tells: which pages were attended to and for how long, or that pages were printed. What a page of the site tells:
// that a placement came into view.
import type { RequestHandler } from './$types';
import { Type } from '@sinclair/typebox';
import { mostBetweenSignsMs } from '#core/reading/attention';
import { fileRequestOf, body, part } from '$lib/server/http/api';
import { recordBeacon } from '$lib/server/reading/chain';
import { compile } from '$lib/server/validate';

const Pages = Type.Array(
	Type.Object(
		{ page: Type.Integer({ minimum: 1 }), seconds: Type.Number({ minimum: 0.1, maximum: mostBetweenSignsMs / 1000 }) },
		{ additionalProperties: false }
	),
	{ minItems: 1, maxItems: 200 }
);
const check = compile(
	Type.Union([
		Type.Object({ kind: Type.Literal('read'), pages: Pages }, { additionalProperties: false }),
		Type.Object({ kind: Type.Literal('shown') }, { additionalProperties: false }),
		Type.Object({ kind: Type.Literal('printed') }, { additionalProperties: false })
	])
);

export const POST: RequestHandler = part(async (event) => {
	await recordBeacon(fileRequestOf(event, event.params.slug), await body(event, check));
	return new Response(null, { status: 204, headers: { 'cache-control': 'no-store' } });
}, true);
