// What the contracts of the capabilities are written with: an operation of the API, and shapes that all of them use.
import { Type, type TObject, type TProperties, type TSchema } from '@sinclair/typebox';
import { nullable, oneOf } from '#core/schema';

export const documentPath = '/documents/{slug}';

export const pagePath = '/pages/{path}';

export const Instant = Type.String({ format: 'date-time', description: 'RFC 3339, UTC' });

export const Sha256 = Type.String({ pattern: '^[0-9a-f]{64}$' });

export { nullable, oneOf };

/** A list that is answered whole. */
export const listOf = <Item extends TSchema>(item: Item) => Type.Object({ items: Type.Array(item), next: Type.Null() });

const Next = nullable(Type.String({ description: 'where it goes on; null at its end' }));

/** A list that is answered in parts, with what else stands beside it. */
export const listInParts = <Item extends TSchema, More extends TProperties>(item: Item, more: More) =>
	Type.Object({ items: Type.Array(item), next: Next, ...more });

/** Where the list goes on: after a row, whatever comes or goes meanwhile (http/cursor.ts). */
export const Cursor = Type.Optional(Type.String({ pattern: '^[\\w-]{1,1600}$', description: '`next` of the answer before' }));

export const Limit = Type.Optional(Type.Integer({ minimum: 1, maximum: 200, description: 'how many at most' }));

/** Any of some values, given once each. */
export const several = (values: readonly string[] | null, description: string) =>
	Type.Optional(Type.Array(values ? oneOf(values) : Type.String({ maxLength: 200 }), { maxItems: 50, description }));

export interface Operation {
	readonly method: 'get' | 'post' | 'put' | 'patch' | 'delete';
	readonly path: string;
	readonly words: string;
	readonly query?: TSchema;
	readonly body?: TSchema;
	/** Fields of a multipart form, beside `file`. */
	readonly form?: readonly string[];
	/** The body is a table. */
	readonly csv?: boolean;
	readonly status: number;
	readonly answer: TSchema | null;
}

export const Nothing = Type.Object({ ok: Type.Literal(true) });

/** The same schema, closed: an answer has what it says and nothing else. */
export function closed(schema: TSchema): TSchema {
	const { type, properties, additionalProperties, items, anyOf } = schema as {
		type?: string;
		properties?: Record<string, TSchema>;
		additionalProperties?: unknown;
		items?: TSchema;
		anyOf?: TSchema[];
	};
	if (anyOf) return { ...schema, anyOf: anyOf.map(closed) };
	if (type === 'array' && items) return { ...schema, items: closed(items) };
	if (type !== 'object' || !properties) return schema;
	const each = Object.fromEntries(Object.entries(properties).map(([name, schema]) => [name, closed(schema)]));
	return { ...schema, properties: each, additionalProperties: additionalProperties ?? false };
}

/** The thing that an answer gives: each item of a list, or the answer itself. */
export function selectable(answer: TSchema): TSchema | null {
	const { properties } = answer as { properties?: Record<string, TSchema & { items?: TSchema }> };
	const thing = properties?.items ? properties.items.items : answer;
	return thing && 'properties' in thing ? thing : null;
}

/** An answer with what puts back what a change replaced. */
export const withBefore = <Fields extends TProperties, Change extends TSchema>(answer: TObject<Fields>, change: Change) =>
	Type.Object({ ...answer.properties, before: change });
