// An edition: one file of a document, with a number. Which one can be shown, and which can be put in force.
import type { ErrorCode } from '../errors';
import type { ConditionStatus } from '../intake/condition';

/** Where an edition's file came from: a person or program, an address on the web, or made here from the one before. */
export const editionOrigins = ['upload', 'web', 'cleaned', 'unlocked'] as const;
export type EditionOrigin = (typeof editionOrigins)[number];

/** What of an edition its being shown depends on. */
export interface EditionState {
	/** 0 until the check has counted them, and where the file is locked. */
	readonly pages: number;
	readonly condition: ConditionStatus;
}

/** Whether readers can be shown its pages. One whose check is under way is shown as soon as its pages are counted. */
export const canBeShown = ({ pages, condition }: EditionState): boolean => pages > 0 && condition !== 'refused';

/** Why an edition cannot be put in force; null where it can. */
export function notInForceYet(condition: ConditionStatus): Extract<ErrorCode, 'edition-not-shown' | 'still-checking'> | null {
	return condition === 'refused' ? 'edition-not-shown' : condition === 'checking' ? 'still-checking' : null;
}
