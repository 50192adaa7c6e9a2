// What schemas are written with, here and in the contracts of the API.
import { Type, type SchemaOptions, type TSchema } from '@sinclair/typebox';

/** The same, all of it unchanging: what a schema gives is read, not written. */
export type Unchanging<T> = T extends readonly (infer E)[] ? readonly Unchanging<E>[] : T extends object ? { readonly [K in keyof T]: Unchanging<T[K]> } : T;

/** The same, or null. */
export const nullable = <T extends TSchema>(schema: T) => Type.Union([schema, Type.Null()]);

/** One of these words and nothing else. */
export const oneOf = <const Word extends string>(words: readonly Word[], options: SchemaOptions = {}) =>
	Type.Unsafe<Word>(
		Type.Union(
			words.map((word) => Type.Literal(word)),
			options
		)
	);
