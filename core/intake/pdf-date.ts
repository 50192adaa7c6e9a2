// Dates inside PDFs. ISO 32000-1, 7.9.4: D:YYYYMMDDHHmmSSOHH'mm, everything after the year may be left out.
import type { Instant } from '../access/hours';

const shape = /^(?:D:)?(\d{4})(?:(\d{2})(?:(\d{2})(?:(\d{2})(?:(\d{2})(?:(\d{2}))?)?)?)?)?(?:([Z+-])(?:(\d{2})'?(?:(\d{2})'?)?)?)?$/;

/**
 * The instant that a PDF date names, or null where it is none. Left-out month and day are 01, the rest 0; without an offset
 * the zone is unknown and UTC is taken. `pdfDate("D:199812231952-08'00")` is 1998-12-24T03:52Z (the standard's own example).
 */
export function pdfDate(text: string): Instant | null {
	const m = shape.exec(text.trim());
	if (!m) return null;
	const n = (i: number, fallback: number) => (m[i] === undefined ? fallback : Number(m[i]));
	const [year, month, day, hour, minute, second] = [n(1, 0), n(2, 1), n(3, 1), n(4, 0), n(5, 0), n(6, 0)];
	const [offsetHours, offsetMinutes] = [n(8, 0), n(9, 0)];
	if (month < 1 || month > 12 || day < 1 || hour > 23 || minute > 59 || second > 59 || offsetHours > 23 || offsetMinutes > 59) return null;
	const local = new Date(0);
	local.setUTCFullYear(year, month - 1, day);
	if (local.getUTCMonth() !== month - 1) return null;
	local.setUTCHours(hour, minute, second);
	const offset = (offsetHours * 60 + offsetMinutes) * 60_000;
	return local.getTime() - (m[7] === '-' ? -offset : m[7] === '+' ? offset : 0);
}
