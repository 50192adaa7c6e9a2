// Settings that a data folder keeps for itself (`<data>/settings`, lines of NAME=value), so that whatever is done to the site finds them. Those of
// the environment come before them.
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseEnv } from 'node:util';

const fileOf = (data: string) => join(data, 'settings');

/** The settings that a data folder keeps; none where it keeps none. */
export function keptSettings(data: string): Record<string, string> {
	const kept = existsSync(fileOf(data)) ? parseEnv(readFileSync(fileOf(data), 'utf8')) : {};
	return Object.fromEntries(Object.entries(kept).flatMap(([name, value]) => (value === undefined ? [] : [[name, value]])));
}

/** Keeps settings in a data folder beside those that it keeps; null forgets one. */
export function keepSettings(data: string, changed: Readonly<Record<string, string | null>>): void {
	const all = { ...keptSettings(data), ...changed };
	const lines = Object.entries(all).flatMap(([name, value]) => (value === null ? [] : [`${name}=${JSON.stringify(value)}\n`]));
	writeFileSync(`${fileOf(data)}.new`, lines.join(''), { mode: 0o600, flush: true });
	renameSync(`${fileOf(data)}.new`, fileOf(data));
}
