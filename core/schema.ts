// What schemas are written with, here and in the contracts of the API.
import { Type, type TSchema } from '@sinclair/typebox';

/** The same, or null. */
export const nullable = <T extends TSchema>(schema: T) => Type.Union([schema, Type.Null()]);
