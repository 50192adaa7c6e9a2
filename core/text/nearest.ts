// The name that was probably meant: by the fewest letters to change (Levenshtein 1965).

/** How many letters have to be put in, taken out or exchanged to make one text of the other. `distance('prot', 'port')` → 2. */
export function distance(a: string, b: string): number {
	let row = Array.from({ length: b.length + 1 }, (_, i) => i);
	for (let i = 1; i <= a.length; i++) {
		const next = [i];
		for (let j = 1; j <= b.length; j++) next[j] = Math.min(next[j - 1]! + 1, row[j]! + 1, row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1));
		row = next;
	}
	return row[b.length]!;
}

/** The one of some names (at least one) that is nearest to a name. */
export const nearestOf = (name: string, names: readonly string[]): string =>
	names.reduce((best, one) => (distance(name, one) < distance(name, best) ? one : best), names[0]!);
