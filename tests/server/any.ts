// Any value that a JSON schema allows, for fast-check: what the API says it takes is sent to it.
import fc, { type Arbitrary } from 'fast-check';

type Schema = Record<string, unknown>;

/** Texts as people write them, and as they do not: marks put together, both directions, halves of a character, zero. */
const text = fc.oneof(
	{ weight: 4, arbitrary: fc.string({ maxLength: 40 }) },
	{ weight: 3, arbitrary: fc.string({ unit: 'grapheme', maxLength: 20 }) },
	{ weight: 2, arbitrary: fc.string({ unit: 'binary', maxLength: 12 }) },
	fc.constantFrom('', ' ', '\0', 'a\u0000b', '\ud800', '‮abc', '%', "';--", '../../etc/passwd', '<script>alert(1)</script>', '{{7*7}}', '__proto__', '=1+1')
);

const formats: Record<string, Arbitrary<string>> = {
	date: fc.oneof(
		fc.date({ min: new Date('2000-01-01'), max: new Date('2100-01-01'), noInvalidDate: true }).map((d) => d.toISOString().slice(0, 10)),
		fc.constantFrom('0001-01-01', '9999-12-31', '2028-02-29')
	),
	'date-time': fc.oneof(
		fc.date({ min: new Date('2000-01-01'), max: new Date('2100-01-01'), noInvalidDate: true }).map((d) => d.toISOString()),
		fc.constantFrom('0001-01-01T00:00:00Z', '9999-12-31T23:59:59Z', '2026-12-31T23:59:60Z', '2026-03-29T01:30:00+01:00', '2026-01-01t00:00:00z')
	),
	email: fc.emailAddress(),
	uuid: fc.uuid(),
	uri: fc.webUrl()
};

/** Values that a schema allows, nested no deeper than `depth`. */
export function anyOf(schema: Schema, depth = 5, above: readonly Schema[] = []): Arbitrary<unknown> {
	const s = schema as Schema & { $id?: string; $ref?: string; type?: string; const?: unknown; enum?: unknown[]; anyOf?: Schema[]; allOf?: Schema[] };
	const within = s.$id ? [...above, s] : above;
	const anyInner = (inner: Schema) => anyOf(inner, depth - 1, within);
	if (s.$ref) {
		const target = above.find((a) => a.$id === s.$ref);
		if (!target || depth <= 0) return fc.constant({});
		return anyOf(target, depth - 1, above);
	}
	if ('const' in s) return fc.constant(s.const);
	if (s.enum) return fc.constantFrom(...s.enum);
	if (s.anyOf) return fc.oneof(...s.anyOf.map(anyInner));
	if (s.allOf) return fc.tuple(...s.allOf.map(anyInner)).map((parts) => Object.assign({}, ...(parts as object[])) as unknown);
	switch (s.type) {
		case 'string': {
			const { minLength = 0, maxLength = 60, pattern, format } = s as { minLength?: number; maxLength?: number; pattern?: string; format?: string };
			if (format) return formats[format] ?? text;
			// what a look-ahead forbids is seldom made, and may be sent too
			const plain = pattern ? fc.stringMatching(new RegExp(pattern.replace(/\(\?[!=][^)]*\)/g, ''))) : text;
			return plain.map((t) => t.slice(0, maxLength).padEnd(minLength, 'x'));
		}
		case 'integer':
			return fc.integer({ min: (s.minimum as number | undefined) ?? -(2 ** 40), max: (s.maximum as number | undefined) ?? 2 ** 40 });
		case 'number':
			return fc.double({ min: (s.minimum as number | undefined) ?? -1e300, max: (s.maximum as number | undefined) ?? 1e300, noNaN: true });
		case 'boolean':
			return fc.boolean();
		case 'null':
			return fc.constant(null);
		case 'array': {
			const { minItems = 0, maxItems = 6, uniqueItems = false } = s as { minItems?: number; maxItems?: number; uniqueItems?: boolean };
			if (depth <= 0 && !minItems) return fc.constant([]);
			const length = { minLength: minItems, maxLength: Math.max(minItems, Math.min(maxItems, 4)) };
			const items = anyInner((s.items as Schema | undefined) ?? {});
			return uniqueItems ? fc.uniqueArray(items, { ...length, selector: (v) => JSON.stringify(v) }) : fc.array(items, length);
		}
		case 'object': {
			const properties = (s.properties ?? {}) as Record<string, Schema>;
			const required = (s.required ?? []) as string[];
			const known = fc.record(Object.fromEntries(Object.entries(properties).map(([name, inner]) => [name, anyInner(inner)])), {
				requiredKeys: required,
				noNullPrototype: true
			}) as Arbitrary<Record<string, unknown>>;
			const [more] = Object.values((s.patternProperties ?? {}) as Record<string, Schema>);
			return more ? fc.tuple(known, fc.dictionary(text, anyInner(more), { maxKeys: 3 })).map(([a, b]) => ({ ...b, ...a })) : known;
		}
		default:
			return fc.jsonValue({ maxDepth: 2 });
	}
}
