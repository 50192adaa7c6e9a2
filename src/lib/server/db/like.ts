// Patterns for LIKE.

/** A pattern for texts that hold the parts in this order, with anything between them; in a part no character means anything but itself. */
export const holding = (...parts: readonly string[]): string => `%${parts.map((part) => part.replace(/[\\%_]/g, '\\$&')).join('%')}%`;
