// The order of the site's navigation.
import { Type } from '@sinclair/typebox';
import type { RequestHandler } from './$types';
import { staff } from '$lib/server/guard/guard';
import { answer, body, route } from '$lib/server/http/api';
import { orderNavigation } from '$lib/server/placing/commands';
import { compile } from '$lib/server/validate';

const checkBody = compile(
	Type.Object({ paths: Type.Array(Type.String({ maxLength: 200 }), { maxItems: 200, uniqueItems: true }) }, { additionalProperties: false })
);

export const PATCH: RequestHandler = route(async (event) => {
	const { id: actor } = staff(event);
	const before = await orderNavigation((await body(event, checkBody)).paths, actor);
	return answer({ ok: true, before: { paths: before } });
});
