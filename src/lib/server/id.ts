// Ids are UUIDv7: they sort by the time at which they were made.
import { v7 } from 'uuid';

/** A new id: UUID version 7 (RFC 9562), which sorts by when it was made. */
export const newId = (): string => v7();

/** Whether a text has the form of an id. */
export const isId = (text: string): boolean => /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(text);
