// Names, titles and labels are one line: in a mail's subject, a sentence or a list, a line break would be more than they are.
import { Type } from '@sinclair/typebox';

/** Control characters, line and paragraph separators (Unicode categories Cc, Zl and Zp), as they stand between the brackets of a pattern. */
export const breaks = '\\u0000-\\u001f\\u007f-\\u009f\\u2028\\u2029';

/** Something that is seen, without any of them. */
export const linePattern = `^(?=.*\\S)[^${breaks}]+$`;

/** The schema of a line of at most `longest` characters. */
export const Line = (longest: number) => Type.String({ minLength: 1, maxLength: longest, pattern: linePattern });

const breaking = new RegExp(`[${breaks}\\s]+`, 'g');
/** A text made a line: what is no letter of a line becomes a space. */
export const asLine = (text: string): string => text.replace(breaking, ' ').trim();
