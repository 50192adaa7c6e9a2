// Ajv, in one place: a schema in, a check out that says in words what is wrong. Edges call it; inside, types are trusted.
import { Ajv, type ErrorObject, type ValidateFunction } from 'ajv';
import formatsPlugin from 'ajv-formats';
import type { Static, TSchema } from '@sinclair/typebox';
import { isDay, isInstant } from '#core/access/hours';
import { IanuaError } from '#core/errors';

// a CommonJS module whose type says default where there is none
const addFormats = formatsPlugin as unknown as (ajv: Ajv) => void;
const strict = new Ajv({ allErrors: false, useDefaults: true, verbose: true });
const coercing = new Ajv({ allErrors: true, useDefaults: true, coerceTypes: true, verbose: true });
for (const ajv of [strict, coercing]) {
	addFormats(ajv);
	// days and instants that can be reckoned with and kept; RFC 3339 knows more
	const written = ajv.formats['date-time'] as { validate: (text: string) => boolean };
	ajv.addFormat('date', isDay);
	ajv.addFormat('date-time', (text) => written.validate(text) && isInstant(text));
}

/** How deep lists and objects may lie in each other: far deeper than anything that is written by hand, and shallow enough to be walked. */
const deepest = 200;
/** In words, what is wrong with a text that has a zero byte in it: nobody writes those by hand, and they cannot be kept. */
export const zeroByte = 'there is a character of value zero in it';

/** What of a JSON value cannot be kept, whatever its schema says, in words; null where all of it can. */
export function unkeepable(value: unknown): string | null {
	let level = [value];
	for (let depth = 0; level.length; depth++) {
		if (depth > deepest) return 'it is nested too deep';
		const next: unknown[] = [];
		for (const v of level) {
			// Unicode 16, 3.9: half of a surrogate pair is no character
			if (typeof v === 'string') {
				if (v.includes('\0')) return zeroByte;
				if (/\p{Surrogate}/u.test(v)) return 'there is half of a character in it';
			} else if (typeof v === 'object' && v !== null) for (const inner of Array.isArray(v) ? v : Object.entries(v).flat()) next.push(inner);
		}
		level = next;
	}
	return null;
}

export type Checked<T> = { ok: true; value: T } | { ok: false; detail: string };

/**
 * Makes the check for a schema. With `coerce`, texts become numbers and booleans (environment, forms, queries). It is compiled when it is
 * first asked: most of what a program could check it never does, and all together took half of each start.
 */
export function compile<T extends TSchema>(schema: T, options: { coerce?: boolean } = {}): (value: unknown) => Checked<Static<T>> {
	let compiled: ValidateFunction | undefined;
	return (value) => {
		const validate = (compiled ??= (options.coerce ? coercing : strict).compile(schema));
		if (validate(value)) return { ok: true, value: value as Static<T> };
		return { ok: false, detail: (validate.errors ?? []).slice(-3).map(errorWords).join('; ') };
	};
}

/** Checks and returns, or throws `not-valid` with what is wrong. */
export function checked<V>(check: (value: unknown) => Checked<V>, value: unknown): V {
	const result = check(value);
	if (!result.ok) throw new IanuaError('not-valid', { detail: result.detail });
	return result.value;
}

function errorWords(error: ErrorObject): string {
	const where = error.instancePath.replace(/^\//, '').replaceAll('/', '.') || 'it';
	if (error.keyword === 'additionalProperties') return `“${(error.params as { additionalProperty: string }).additionalProperty}” is not known`;
	if (error.keyword === 'required') return `“${(error.params as { missingProperty: string }).missingProperty}” is missing`;
	const { description } = (error.parentSchema ?? {}) as { description?: string };
	// a pattern says nothing to a person: what is meant does, where the schema tells it
	if (error.keyword === 'pattern' && description && typeof error.data === 'string')
		return `“${where}” is “${error.data.slice(0, 100)}”, which is not ${description}`;
	return `“${where}” ${error.message ?? 'is not right'}`;
}
