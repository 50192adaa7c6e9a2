// Editions made here of another one: without active content, without its password. The original stays as an edition of its own.
import { eq } from 'drizzle-orm';
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { rm, stat } from 'node:fs/promises';
import { IanuaError } from '#core/errors';
import { db } from '../db/client';
import { document, edition } from '../db/schema';
import { original, type Received } from '../store/store';
import { structureOf } from '../pdf/facts';
import { clean, unlock } from '../pdf/derivatives';
import { bringIn } from './bring-in';

async function inForce(slug: string) {
	const [row] = await db().select({ edition }).from(document).innerJoin(edition, eq(edition.id, document.editionId)).where(eq(document.slug, slug));
	if (!row) throw new IanuaError('not-found');
	return row.edition;
}

async function receivedFrom(path: string): Promise<Received> {
	const hash = createHash('sha256');
	for await (const chunk of createReadStream(path, { highWaterMark: 1024 * 1024 })) hash.update(chunk as Buffer);
	return { path, sha256: hash.digest('hex'), bytes: (await stat(path)).size };
}

/** Makes an edition without active content of the one in force; gives its id. */
export async function makeCleaned(slug: string, actor: string): Promise<string> {
	const from = await inForce(slug);
	if (from.condition === 'checking') throw new IanuaError('still-checking');
	if (!from.facts.active.length) throw new IanuaError('nothing-to-clean');
	const path = await clean(await original(from.sha256));
	if (!path) throw new IanuaError('not-cleaned');
	try {
		if ((await structureOf(path)).active.length) throw new IanuaError('not-cleaned');
		return (await bringIn(await receivedFrom(path), { fileName: from.fileName, editionOf: slug, origin: 'cleaned' }, actor)).edition;
	} finally {
		await rm(path, { force: true });
	}
}

/** Makes an edition without a password of a locked one; gives its id. */
export async function makeUnlocked(slug: string, password: string, actor: string): Promise<string> {
	const from = await inForce(slug);
	if (!from.findings.some((f) => f.code === 'locked')) throw new IanuaError('not-locked');
	const path = await unlock(await original(from.sha256), password);
	if (!path) throw new IanuaError('password-wrong');
	try {
		return (await bringIn(await receivedFrom(path), { fileName: from.fileName, editionOf: slug, origin: 'unlocked' }, actor)).edition;
	} finally {
		await rm(path, { force: true });
	}
}
