// Settings that are made of what stood when somebody began, and saved after others have been.

const isRecord = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value);
const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/**
 * What is to stand, where `wanted` was made of `was` and meanwhile something else stands, `now`: what was changed from `was` to `wanted` is changed in
 * `now`, what was not stays. Within objects at any depth; anything else is one value. `carriedOver({ a: 1 }, { a: 1, b: 2 }, { a: 3 })` → { a: 3, b: 2 }.
 */
export function carriedOver(was: unknown, wanted: unknown, now: unknown): unknown {
	if (!isRecord(wanted) || !isRecord(now)) return wanted;
	const base = isRecord(was) ? was : {};
	const out = { ...now };
	for (const key of new Set([...Object.keys(base), ...Object.keys(wanted)])) {
		if (same(base[key], wanted[key])) continue;
		if (key in wanted) out[key] = carriedOver(base[key], wanted[key], now[key]);
		else Reflect.deleteProperty(out, key);
	}
	return out;
}
