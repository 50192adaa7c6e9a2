// Numbers that come in addresses.

/** The largest that PostgreSQL's integer holds: numbers of pages, editions and rows are no larger. */
export const largestNumber = 2_147_483_647;

/**
 * A whole number from a text; `otherwise` where there is none, or it is none, or lies outside the bounds. `wholeNumber('7', 1)` → 7,
 * `wholeNumber('1e18', 1)` → 1.
 */
export function wholeNumber<T>(text: string | null | undefined, otherwise: T, { least = 1, most = largestNumber } = {}): number | T {
	if (!/^\d{1,10}$/.test(text ?? '')) return otherwise;
	const number = Number(text);
	return number >= least && number <= most ? number : otherwise;
}
