// In which order titles and names stand.

/** Orders titles and names as people look them up: letters without regard to case or accents first, numbers in them by their size. */
export const byName: (a: string, b: string) => number = new Intl.Collator('en', { numeric: true }).compare;
