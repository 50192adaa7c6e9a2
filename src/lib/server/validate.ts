// Ajv, in one place: a schema in, a check out that says in words what is wrong. Edges call it; inside, types are trusted.
import { Ajv, type ErrorObject } from 'ajv';
import formatsPlugin from 'ajv-formats';
import type { Static, TSchema } from '@sinclair/typebox';
import { IanuaError } from '#core/errors';

const addFormats = formatsPlugin as unknown as (ajv: Ajv) => void;
const strict = new Ajv({ allErrors: false, useDefaults: true });
const coercing = new Ajv({ allErrors: true, useDefaults: true, coerceTypes: true });
addFormats(strict);
addFormats(coercing);

export type Checked<T> = { ok: true; value: T } | { ok: false; detail: string };

/** Makes the check for a schema. With `coerce`, texts become numbers and booleans (environment, forms, queries). */
export function compile<T extends TSchema>(schema: T, options: { coerce?: boolean } = {}): (value: unknown) => Checked<Static<T>> {
	const validate = (options.coerce ? coercing : strict).compile(schema);
	return (value) => {
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
	return `“${where}” ${error.message ?? 'is not right'}`;
}
