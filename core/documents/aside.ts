// What was set aside can be brought back for a while.

/** Days for which a document set aside can be restored. */
export const setAsideDays = 30;

const dayMs = 86_400_000;

/** Until when (ms since 1970, UTC) what was set aside at `at` can be restored. */
export const restorableUntil = (at: number): number => at + setAsideDays * dayMs;
