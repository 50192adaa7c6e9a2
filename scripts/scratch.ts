// A data folder for one run of tests, pictures or figures: open enough for the user postgres to pass through, gone afterwards. One that is
// named stays.
import { chmodSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

export function scratch(name: string, kept?: string): { path: string; drop: () => void } {
	if (kept) {
		mkdirSync(kept, { recursive: true, mode: 0o755 });
		return { path: kept, drop: () => {} };
	}
	const path = mkdtempSync(join(tmpdir(), `ianua-${name}-`));
	chmodSync(path, 0o755);
	return { path, drop: () => rmSync(path, { recursive: true, force: true }) };
}
