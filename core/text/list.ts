// Several things, and how many, as people say them.

/** 'a', 'a and b', 'a, b and c'. */
export function listWords(items: readonly string[], joined: 'and' | 'or' = 'and'): string {
	if (items.length < 2) return items[0] ?? '';
	return `${items.slice(0, -1).join(', ')} ${joined} ${items[items.length - 1]}`;
}

/** '1 person', '14 people': a number with its noun. */
export function counted(n: number, one: string, many: string): string {
	return `${n.toLocaleString('en-GB')} ${n === 1 ? one : many}`;
}
