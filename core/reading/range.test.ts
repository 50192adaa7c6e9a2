// RFC 9110, section 14 (ranges) and 13 (conditions), with the examples of the RFC.
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { byteRange, contentRange, precondition, rangeHolds } from './range';

describe('the examples of RFC 9110, 14.1.2, for a representation of 10000 bytes', () => {
	const size = 10_000;
	it('the first 500 bytes: bytes=0-499', () => expect(byteRange('bytes=0-499', size)).toEqual({ first: 0, last: 499 }));
	it('the second 500 bytes: bytes=500-999', () => expect(byteRange('bytes=500-999', size)).toEqual({ first: 500, last: 999 }));
	it('the final 500 bytes: bytes=-500', () => expect(byteRange('bytes=-500', size)).toEqual({ first: 9500, last: 9999 }));
	it('or: bytes=9500-', () => expect(byteRange('bytes=9500-', size)).toEqual({ first: 9500, last: 9999 }));
	it('the first and last bytes only: bytes=0-0,-1 (several: the whole is sent, which 14.2 allows)', () =>
		expect(byteRange('bytes=0-0,-1', size)).toBe('whole'));
	it('first, middle and last 1000 bytes: bytes= 0-999, 4500-5499, -1000 (several)', () =>
		expect(byteRange('bytes= 0-999, 4500-5499, -1000', size)).toBe('whole'));
	it('other valid (but not canonical) specifications: bytes=500-600,601-999 and bytes=500-700,601-999 (several)', () => {
		expect(byteRange('bytes=500-600,601-999', size)).toBe('whole');
		expect(byteRange('bytes=500-700,601-999', size)).toBe('whole');
	});
});

describe('what section 14 says besides', () => {
	it('a last position beyond the end means the end', () => expect(byteRange('bytes=9990-20000', 10_000)).toEqual({ first: 9990, last: 9999 }));
	it('a suffix longer than the whole means the whole', () => expect(byteRange('bytes=-20000', 10_000)).toEqual({ first: 0, last: 9999 }));
	it('a first position at or beyond the end cannot be satisfied', () => expect(byteRange('bytes=10000-', 10_000)).toBe('unsatisfiable'));
	it('a suffix of 0 bytes cannot be satisfied', () => expect(byteRange('bytes=-0', 10_000)).toBe('unsatisfiable'));
	it('a last position before the first is invalid and ignored', () => expect(byteRange('bytes=500-499', 10_000)).toBe('whole'));
	it('another unit, or a field that is not well formed, is ignored', () => {
		for (const field of ['seconds=1-2', 'bytes', 'bytes=', 'bytes=-', 'bytes=a-b', 'bytes=1-2-3', '', null])
			expect(byteRange(field, 10_000), String(field)).toBe('whole');
	});
	it('white space and empty members around the one range are let be (9110, 5.6.1: recipients parse and ignore empty list elements)', () => {
		for (const field of ['bytes= 0-1 ', ' bytes=0-1', 'bytes=,0-1', 'bytes=0-1, ,', 'bytes = 0-1'])
			expect(byteRange(field, 10_000), field).toEqual({ first: 0, last: 1 });
	});
	it('a single byte, the last byte, and a file of one byte or none', () => {
		expect([byteRange('bytes=5-5', 10), byteRange('bytes=9-', 10), byteRange('bytes=-1', 10), byteRange('bytes=0-', 1)]).toEqual([
			{ first: 5, last: 5 },
			{ first: 9, last: 9 },
			{ first: 9, last: 9 },
			{ first: 0, last: 0 }
		]);
		expect([byteRange('bytes=0-', 0), byteRange('bytes=-1', 0), byteRange('bytes=9-9', 9), byteRange('bytes=8-9', 9)]).toEqual([
			'unsatisfiable',
			'unsatisfiable',
			'unsatisfiable',
			{ first: 8, last: 8 }
		]);
	});
	it('range units are case-insensitive (14.1)', () => expect(byteRange('Bytes=0-1', 10_000)).toEqual({ first: 0, last: 1 }));
	it('Content-Range reads as in 14.4: bytes 42-1233/1234', () => expect(contentRange({ first: 42, last: 1233 }, 1234)).toBe('bytes 42-1233/1234'));
	it('a range given lies within the file', () => {
		fc.assert(
			fc.property(fc.nat(1e6), fc.option(fc.nat(2e6)), fc.option(fc.nat(2e6)), (size, a, b) => {
				const range = byteRange(`bytes=${a ?? ''}-${b ?? ''}`, size);
				if (typeof range === 'string') return;
				expect(range.first).toBeGreaterThanOrEqual(0);
				expect(range.last).toBeLessThan(size);
				expect(range.first).toBeLessThanOrEqual(range.last);
			})
		);
	});
});

describe('conditions, RFC 9110, 13', () => {
	const etag = '"xyzzy"';
	const modified = Date.parse('Sat, 29 Oct 1994 19:43:31 GMT');
	it('If-None-Match compares weakly, and a match is not modified (examples of 13.1.2)', () => {
		for (const field of ['"xyzzy"', 'W/"xyzzy"', '"xyzzy", "r2d2xxxx", "c3piozzzz"', '*'])
			expect(precondition({ ifNoneMatch: field }, etag, modified), field).toBe('not-modified');
		expect(precondition({ ifNoneMatch: '"r2d2xxxx"' }, etag, modified)).toBe('go-on');
	});
	it('If-Match compares strongly (examples of 13.1.1)', () => {
		for (const field of ['"xyzzy"', '"xyzzy", "r2d2xxxx", "c3piozzzz"', '*']) expect(precondition({ ifMatch: field }, etag, modified), field).toBe('go-on');
		expect(precondition({ ifMatch: 'W/"xyzzy"' }, etag, modified)).toBe('failed');
	});
	it('If-Modified-Since: Sat, 29 Oct 1994 19:43:31 GMT (example of 13.1.3)', () => {
		expect(precondition({ ifModifiedSince: 'Sat, 29 Oct 1994 19:43:31 GMT' }, etag, modified)).toBe('not-modified');
		expect(precondition({ ifModifiedSince: 'Sat, 29 Oct 1994 19:43:30 GMT' }, etag, modified)).toBe('go-on');
		expect(precondition({ ifModifiedSince: 'not a date' }, etag, modified)).toBe('go-on');
	});
	it('If-None-Match takes precedence over If-Modified-Since (13.2.2)', () => {
		expect(precondition({ ifNoneMatch: '"other"', ifModifiedSince: 'Sat, 29 Oct 1994 19:43:31 GMT' }, etag, modified)).toBe('go-on');
	});
	it('If-Unmodified-Since fails once it was changed (13.1.4)', () => {
		expect(precondition({ ifUnmodifiedSince: 'Sat, 29 Oct 1994 19:43:31 GMT' }, etag, modified)).toBe('go-on');
		expect(precondition({ ifUnmodifiedSince: 'Fri, 28 Oct 1994 19:43:31 GMT' }, etag, modified)).toBe('failed');
	});
	it('a date is compared by whole seconds, as HTTP has them', () => {
		for (const more of [0, 1, 999]) {
			expect(precondition({ ifModifiedSince: 'Sat, 29 Oct 1994 19:43:31 GMT' }, etag, modified + more)).toBe('not-modified');
			expect(precondition({ ifUnmodifiedSince: 'Sat, 29 Oct 1994 19:43:31 GMT' }, etag, modified + more)).toBe('go-on');
			expect(rangeHolds('Sat, 29 Oct 1994 19:43:31 GMT', etag, modified + more)).toBe(true);
		}
		expect(precondition({ ifModifiedSince: 'Sat, 29 Oct 1994 19:43:31 GMT' }, etag, modified + 1000)).toBe('go-on');
		expect(rangeHolds(' "xyzzy" ', etag, modified)).toBe(true);
		expect(precondition({ ifMatch: '"other"', ifUnmodifiedSince: 'Sat, 29 Oct 1994 19:43:31 GMT' }, etag, modified)).toBe('failed');
		expect(precondition({ ifMatch: '"xyzzy"', ifUnmodifiedSince: 'Fri, 28 Oct 1994 19:43:31 GMT' }, etag, modified)).toBe('go-on');
	});
	it('If-Range holds for the same strong tag or exact date only (13.1.5)', () => {
		expect(rangeHolds(null, etag, modified)).toBe(true);
		expect(rangeHolds('"xyzzy"', etag, modified)).toBe(true);
		expect(rangeHolds('W/"xyzzy"', etag, modified)).toBe(false);
		expect(rangeHolds('"other"', etag, modified)).toBe(false);
		expect(rangeHolds('Sat, 29 Oct 1994 19:43:31 GMT', etag, modified)).toBe(true);
		expect(rangeHolds('Sat, 29 Oct 1994 19:43:32 GMT', etag, modified)).toBe(false);
	});
});
