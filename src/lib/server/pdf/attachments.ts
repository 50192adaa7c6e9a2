// Files that travel inside a PDF, taken out by qpdf when first asked for and kept beside the store.
import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { once } from 'node:events';
import { exists, madePath, pathOf, settle, temporaryPath } from '../files/store';
import { limits, run } from './run';

const MiB = 1024 * 1024;

/** Keys and names of the attachments, in the order of the file's name tree. */
async function listed(sha256: string): Promise<{ key: string; name: string }[]> {
	const { code, output } = await run('qpdf', ['--json', '--json-key=attachments', pathOf(sha256)], { ...limits.structure, output: 16 * MiB });
	if (code !== 0 && code !== 3) return [];
	try {
		const { attachments = {} } = JSON.parse(output) as { attachments?: Record<string, { preferredname?: string }> };
		return Object.entries(attachments).map(([key, a]) => ({ key, name: a.preferredname || key }));
	} catch {
		return [];
	}
}

/** An attachment's file and name by its number from 1; null where there is none, or where it cannot be taken out. */
export async function attachmentPath(sha256: string, number: number): Promise<{ path: string; name: string } | null> {
	const attachment = (await listed(sha256))[number - 1];
	if (!attachment) return null;
	const path = madePath(sha256, `attachment-${number}.bin`);
	if (await exists(path)) return { path, name: attachment.name };
	const temporary = await temporaryPath('.bin');
	const file = createWriteStream(temporary);
	try {
		const { code } = await run('qpdf', [`--show-attachment=${attachment.key}`, pathOf(sha256)], { ...limits.structure, output: 256 * MiB }, (chunk) => {
			file.write(chunk);
		});
		file.end();
		await once(file, 'close');
		if (code !== 0 && code !== 3) return null;
		await settle(temporary, path);
		return { path, name: attachment.name };
	} finally {
		file.destroy();
		await rm(temporary, { force: true });
	}
}
