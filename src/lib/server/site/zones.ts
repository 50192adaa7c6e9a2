// The time zones that a site can be in, by the names they have today. JavaScript's own list has names that were given up (Asia/Katmandu).
import { readFileSync } from 'node:fs';
import { isZone } from './site';

/** Comes with Debian's tzdata, on which PostgreSQL depends: a line for each zone, its name in the third column (tzfile(5), zone.tab). */
const table = '/usr/share/zoneinfo/zone.tab';
let read: readonly string[] | undefined;

/** IANA names in order of the alphabet, UTC first. */
export function zones(): readonly string[] {
	read ??= ['UTC', ...(named() ?? Intl.supportedValuesOf('timeZone')).filter(isZone).sort()];
	return read;
}

function named(): string[] | null {
	try {
		return readFileSync(table, 'utf8')
			.split('\n')
			.flatMap((line) => (line.startsWith('#') ? [] : (line.split('\t')[2] ?? [])));
	} catch {
		return null;
	}
}
