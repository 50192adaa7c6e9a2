// Where a list goes on: after its last row, named by what the list goes by and by its id. What comes or goes meanwhile shifts nothing.
import { IanuaError } from '#core/errors';
import { isId } from '../id';

/** The row after which a list goes on; `value` is what the list goes by, as the database writes it. */
export interface After {
	readonly value: string;
	readonly id: string;
}

/** The cursor behind a row, of a list in this order. */
export const cursorAfter = (order: string, { value, id }: After): string => Buffer.from(JSON.stringify([order, value, id])).toString('base64url');

/** The row that a cursor names. Throws `not-valid` for one that no list in this order gave; `fits` tells which values it has. */
export function afterOf(cursor: string | undefined, order: string, fits: (value: string) => boolean = () => true): After | undefined {
	if (cursor === undefined) return undefined;
	let parts: unknown;
	try {
		parts = JSON.parse(Buffer.from(cursor, 'base64url').toString());
	} catch {
		parts = null;
	}
	const [of, value, id] = Array.isArray(parts) ? (parts as unknown[]) : [];
	if (of !== order || typeof value !== 'string' || value.includes('\0') || !fits(value) || typeof id !== 'string' || !isId(id))
		throw new IanuaError('not-valid', { detail: 'the cursor is none of this list in this order: give the “next” of the answer before, with the same order' });
	return { value, id };
}
