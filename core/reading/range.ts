// Byte ranges. RFC 9110, section 14. One range is answered with 206; several at once are answered with the whole file,
// which 14.2 allows ("a server MAY ignore the Range header field").

/** First and last byte, both included, counted from 0. */
export interface ByteRange {
	readonly first: number;
	readonly last: number;
}

/**
 * What a Range field asks of a file of `size` bytes: a range, 'whole' (no field, another unit, not well formed, several
 * ranges: 14.2 has them ignored) or 'unsatisfiable' (416, 15.5.17).
 * `byteRange('bytes=-500', 10_000)` → `{first: 9500, last: 9999}`.
 */
export function byteRange(field: string | null | undefined, size: number): ByteRange | 'whole' | 'unsatisfiable' {
	if (!field) return 'whole';
	// 14.1: range units are case-insensitive. 14.1.1: ranges-specifier = range-unit "=" range-set
	const m = /^\s*bytes\s*=\s*(.*)$/i.exec(field);
	if (!m) return 'whole';
	const specs = m[1]!
		.split(',')
		.map((s) => s.trim())
		.filter(Boolean);
	if (specs.length !== 1) return 'whole';
	const spec = /^(\d*)-(\d*)$/.exec(specs[0]!);
	if (!spec || (spec[1] === '' && spec[2] === '')) return 'whole';
	if (spec[1] === '') {
		// 14.1.2: suffix-range; longer than the file means all of it; a length of 0 cannot be satisfied
		const length = Number(spec[2]);
		if (length === 0 || size === 0) return 'unsatisfiable';
		return { first: Math.max(0, size - length), last: size - 1 };
	}
	const first = Number(spec[1]);
	const last = spec[2] === '' ? size - 1 : Number(spec[2]);
	// 14.1.2: "An int-range is invalid if the last-pos value is present and less than first-pos"
	if (spec[2] !== '' && last < first) return 'whole';
	if (first >= size) return 'unsatisfiable';
	return { first, last: Math.min(last, size - 1) };
}

/** 'bytes 0-499/10000' (14.4). */
export function contentRange(range: ByteRange, size: number): string {
	return `bytes ${range.first}-${range.last}/${size}`;
}

/** What the conditional fields of a request say about a file that never changes under its entity tag. RFC 9110, section 13. */
export interface Conditions {
	readonly ifMatch?: string | null;
	readonly ifNoneMatch?: string | null;
	readonly ifModifiedSince?: string | null;
	readonly ifUnmodifiedSince?: string | null;
	readonly ifRange?: string | null;
}

/** The order of evaluation is 13.2.2; `etag` is strong and quoted, `modified` in ms. Only for GET and HEAD. */
export function precondition(conditions: Conditions, etag: string, modified: number): 'go-on' | 'not-modified' | 'failed' {
	const seconds = Math.floor(modified / 1000) * 1000;
	if (conditions.ifMatch) {
		if (!tagList(conditions.ifMatch).some((t) => t === '*' || t === etag)) return 'failed';
	} else if (conditions.ifUnmodifiedSince) {
		const since = Date.parse(conditions.ifUnmodifiedSince);
		if (!Number.isNaN(since) && seconds > since) return 'failed';
	}
	if (conditions.ifNoneMatch) {
		// 13.1.2: weak comparison
		return tagList(conditions.ifNoneMatch).some((t) => t === '*' || t.replace(/^W\//, '') === etag) ? 'not-modified' : 'go-on';
	}
	if (conditions.ifModifiedSince) {
		const since = Date.parse(conditions.ifModifiedSince);
		if (!Number.isNaN(since) && seconds <= since) return 'not-modified';
	}
	return 'go-on';
}

/** Whether a Range field may be honoured: no If-Range, or one that names this very file (13.1.5, strong comparison). */
export function rangeHolds(ifRange: string | null | undefined, etag: string, modified: number): boolean {
	if (!ifRange) return true;
	if (ifRange.trimStart().startsWith('"')) return ifRange.trim() === etag;
	if (/^\s*W\//.test(ifRange)) return false;
	return Date.parse(ifRange) === Math.floor(modified / 1000) * 1000;
}

export function tagList(field: string): string[] {
	return field.match(/\*|(?:W\/)?"[^"]*"/g) ?? [];
}
