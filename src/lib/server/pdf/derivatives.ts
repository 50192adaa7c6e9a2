// Other files made of a PDF by qpdf: packed for reading, without its password, without active content.
import { rm, stat, writeFile } from 'node:fs/promises';
import { madePath, settle, temporaryPath } from '../store/store';
import { stripActive } from './strip';
import { limits, run, type Limits } from './run';

/** What qpdf may write: 256 MiB or three times the input, whichever is more. */
async function writing(path: string): Promise<Limits> {
	const { size } = await stat(path);
	return { ...limits.structure, file: Math.max(limits.structure.file, size * 3) };
}

/** Where the copy for reading lies, made smaller. */
export const packedPath = (sha256: string) => madePath(sha256, 'reading.pdf');

/**
 * Makes the copy for reading, objects packed into streams (ISO 32000-1, 7.5.7): pdf.js then asks for a fifth to a half of the bytes.
 * Kept only where it is at least a twentieth smaller. Not linearised, which costs pdf.js more. False where there is none.
 */
export async function pack(path: string, sha256: string): Promise<boolean> {
	const temporary = await temporaryPath('.pdf');
	const { code } = await run('qpdf', ['--object-streams=generate', '--warning-exit-0', path, temporary], await writing(path));
	const [before, after] = await Promise.all([stat(path), stat(temporary).catch(() => null)]);
	if (code !== 0 || !after || after.size > before.size * 0.95) {
		await rm(temporary, { force: true });
		return false;
	}
	await settle(temporary, packedPath(sha256));
	return true;
}

/** Writes the file without its encryption to a temporary path; null where the password is not right. */
export async function unlock(path: string, password: string): Promise<string | null> {
	const [secret, temporary] = [await temporaryPath('.secret'), await temporaryPath('.pdf')];
	try {
		// not on the command line, where other programs could read it
		await writeFile(secret, password, { mode: 0o600 });
		const { code } = await run('qpdf', [`--password-file=${secret}`, '--decrypt', '--warning-exit-0', path, temporary], await writing(path));
		if (code === 0) return temporary;
		await rm(temporary, { force: true });
		return null;
	} finally {
		await rm(secret, { force: true });
	}
}

/** Writes the file without active content to a temporary path; null where that cannot be done. */
export async function clean(path: string): Promise<string | null> {
	const [changes, temporary] = [await temporaryPath('.json'), await temporaryPath('.pdf')];
	const strip = stripActive();
	try {
		const looked = await run(
			'qpdf',
			['--json', '--json-key=qpdf', '--json-stream-data=none', '--warning-exit-0', path],
			{ ...limits.structure, output: 512 * 1024 * 1024 },
			strip.take
		);
		if (looked.code !== 0) return null;
		await writeFile(changes, JSON.stringify(strip.changes()));
		const { code } = await run('qpdf', [path, `--update-from-json=${changes}`, '--warning-exit-0', temporary], await writing(path));
		if (code === 0) return temporary;
		await rm(temporary, { force: true });
		return null;
	} finally {
		await rm(changes, { force: true });
	}
}
