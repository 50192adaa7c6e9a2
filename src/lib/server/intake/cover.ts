// Covers that are no page: a picture of one's own, or an icon.
import { Readable } from 'node:stream';
import { rm } from 'node:fs/promises';
import sharp from 'sharp';
import { IanuaError } from '#core/errors';
import type { Cover } from '#core/documents/cover';
import { setCover } from '../documents/change';
import { keep, receive, TooLarge, type Received } from '../store/store';
import { runInWorker } from '../pdf/helpers';
import { iconDrawing } from './icons';

/** Largest picture taken, bytes; it is kept at most 1,200 px wide. */
const largest = 20_000_000;
const width = 1200;

/** Keeps a picture sent by staff (PNG, JPEG or WebP), upright and within a width; what it carries beside its pixels is dropped. */
export async function keepPicture(stream: AsyncIterable<Uint8Array>, widest = width): Promise<{ sha256: string; width: number; height: number }> {
	let sent: Received;
	try {
		sent = await receive(stream, largest);
	} catch (error) {
		throw error instanceof TooLarge ? new IanuaError('file-too-large', { name: 'The picture', limit: '20 MB' }) : error;
	}
	try {
		const made = await runInWorker('picture', { path: sent.path, widest });
		await keep(made);
		return made;
	} finally {
		await rm(sent.path, { force: true });
	}
}

/** Sets the cover to a picture sent by staff. */
export async function pictureCover(slug: string, stream: AsyncIterable<Uint8Array>, actor: string): Promise<void> {
	await setCover(slug, { kind: 'picture', sha256: (await keepPicture(stream)).sha256 }, actor);
}

/** Sets the cover to an icon on a leaf. */
export async function iconCover(slug: string, name: string, actor: string): Promise<void> {
	const drawing = await iconDrawing(name);
	if (drawing === null) throw new IanuaError('icon-unknown', { name });
	const leaf = `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="1697" viewBox="0 0 60 84.85"><path fill="#e3ece8" d="M0 0h60v84.85H0z"/><path fill="#1f5f58" d="M0 0h3v84.85H0z"/><g transform="translate(13.5 22) scale(1.45)" fill="none" stroke="#1f5f58" stroke-width="1.4" stroke-linecap="round" stroke-linejoin="round">${drawing}</g></svg>`;
	const cover: Cover = { kind: 'icon', name, sha256: await keepBytes(await sharp(Buffer.from(leaf)).png().toBuffer()) };
	await setCover(slug, cover, actor);
}

/** Puts bytes made here into the store. */
async function keepBytes(bytes: Buffer): Promise<string> {
	try {
		const received = await receive(Readable.from([bytes]), largest * 4);
		await keep(received);
		return received.sha256;
	} catch (error) {
		if (error instanceof TooLarge) throw new IanuaError('picture-unusable');
		throw error;
	}
}
