// Names, titles and labels are one line: in a mail's subject, a sentence or a list, a line break would be more than they are.
import { Type } from '@sinclair/typebox';

/** Something that is seen, without control characters, line and paragraph separators (Unicode categories Cc, Zl, Zp). */
export const linePattern = '^(?=.*\\S)[^\\p{Cc}\\p{Zl}\\p{Zp}]+$';

/** The schema of a line of at most `longest` characters. */
export const Line = (longest: number) => Type.String({ minLength: 1, maxLength: longest, pattern: linePattern });

/** A text made a line: what is no letter of a line becomes a space. */
export const asLine = (text: string): string => text.replace(/[\p{Cc}\p{Zl}\p{Zp}\s]+/gu, ' ').trim();
