// The first look at a file: is it a PDF, is it locked, how many pages. Quick; what it refuses never becomes a document.
import { open } from 'node:fs/promises';
import { IanuaError } from '#core/errors';
import { lockedFacts, type Facts } from '#core/intake/condition';
import { headerWindow, kindOf, pdfVersion } from '#core/intake/header';
import { firstFacts, passwordState } from './facts';

export interface Looked {
	/** What pdfinfo tells; the check fills in the rest. */
	readonly facts: Facts;
	readonly locked: boolean;
}

/** Looks at a file of `bytes` bytes. Throws `file-empty`, `file-not-pdf` or `file-damaged`. */
export async function look(path: string, bytes: number, name: string): Promise<Looked> {
	if (bytes === 0) throw new IanuaError('file-empty', { name });
	const start = await startOf(path);
	const version = pdfVersion(start);
	if (version === null) throw new IanuaError('file-not-pdf', { name, kind: kindOf(start) });
	const password = await passwordState(path);
	if (password === 'needed') return { facts: lockedFacts(version), locked: true };
	const first = await firstFacts(path, version, password === 'opens');
	if (!first) throw new IanuaError('file-damaged', { name });
	return { facts: { ...lockedFacts(version), ...first }, locked: false };
}

async function startOf(path: string): Promise<Uint8Array> {
	const file = await open(path, 'r');
	try {
		const { buffer, bytesRead } = await file.read(Buffer.alloc(headerWindow), 0, headerWindow, 0);
		return buffer.subarray(0, bytesRead);
	} finally {
		await file.close();
	}
}
