// Of an answer only what is wanted of it: `?fields=slug,title`.
import type { RequestEvent } from '@sveltejs/kit';
import type { TSchema } from '@sinclair/typebox';
import { IanuaError } from '#core/errors';
import { operations } from './operations';
import { selectable } from './contract';

const gets = new Map(operations.filter((o) => o.method === 'get').map((o) => [o.path, o.answer && selectable(o.answer)]));

/** The names asked for; null where nothing is. Takes `fields` out of the query, which the route does not know. Throws `not-valid` for names that there are not. */
export function selectionOf({ url, route }: RequestEvent): readonly string[] | null {
	const given = url.searchParams.get('fields');
	const path = route.id?.replace('/api/v1', '').replace(/\[(?:\.\.\.)?(\w+)\]/g, '{$1}') ?? '';
	const schema: TSchema | null | undefined = gets.get(path);
	if (given === null || !schema) return null;
	url.searchParams.delete('fields');
	const names = given.split(',').map((name) => name.trim());
	const unknown = names.filter((name) => !Object.hasOwn(schema.properties as object, name));
	if (unknown.length)
		throw new IanuaError('not-valid', {
			detail: `there is no field “${unknown.join('”, “')}”: there are ${Object.keys(schema.properties as object).join(', ')}`
		});
	return names;
}

/** An answer of 200 with the names asked for alone: of each of its items where it is a list, whose `next` and counts stay. */
export async function selected(names: readonly string[] | null, response: Response): Promise<Response> {
	if (!names || response.status !== 200) return response;
	const value = (await response.json()) as Record<string, unknown>;
	const pick = (thing: object) => Object.fromEntries(Object.entries(thing).filter(([name]) => names.includes(name)));
	const shown = Array.isArray(value.items) ? { ...value, items: (value.items as object[]).map(pick) } : pick(value);
	const headers = new Headers(response.headers);
	headers.delete('content-length');
	return new Response(JSON.stringify(shown), { status: 200, headers });
}
