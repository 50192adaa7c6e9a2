// Covers that are no page: a picture of one's own, or an icon.
import sharp from 'sharp';
import { IanuaError } from '#core/errors';
import type { Cover } from '#core/documents/cover';
import { setCover } from '../documents/change';
import { keep, receive, TooLarge } from '../files/store';
import { iconDrawing } from './icons';

/** Largest picture taken, bytes; it is kept at most 1,200 px wide. */
const largest = 20_000_000;
const width = 1200;

/** A picture sent by staff (PNG, JPEG or WebP) as PNG, upright and bounded in size. What it carries beside its pixels is dropped. */
export async function pictureFrom(stream: AsyncIterable<Uint8Array>, widest = width): Promise<{ bytes: Buffer; width: number; height: number }> {
	const chunks: Uint8Array[] = [];
	let bytes = 0;
	for await (const chunk of stream) {
		bytes += chunk.length;
		if (bytes > largest) throw new IanuaError('file-too-large', { name: 'The picture', limit: '20 MB' });
		chunks.push(chunk);
	}
	try {
		const image = sharp(Buffer.concat(chunks), { limitInputPixels: 100_000_000 });
		const { format } = await image.metadata();
		if (!['png', 'jpeg', 'webp'].includes(format ?? '')) throw new IanuaError('picture-unusable');
		const { data, info } = await image
			.rotate()
			.resize({ width: widest, height: widest * 3, fit: 'inside', withoutEnlargement: true })
			.png()
			.toBuffer({ resolveWithObject: true });
		return { bytes: data, width: info.width, height: info.height };
	} catch (error) {
		throw error instanceof IanuaError ? error : new IanuaError('picture-unusable');
	}
}

/** Sets the cover to a picture sent by staff. */
export async function pictureCover(slug: string, stream: AsyncIterable<Uint8Array>, actor: string): Promise<void> {
	await setCover(slug, { kind: 'picture', sha256: await keepBytes((await pictureFrom(stream)).bytes) }, actor);
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
export async function keepBytes(bytes: Buffer): Promise<string> {
	try {
		const received = await receive(
			(async function* () {
				yield bytes;
			})(),
			largest * 4
		);
		await keep(received);
		return received.sha256;
	} catch (error) {
		if (error instanceof TooLarge) throw new IanuaError('picture-unusable');
		throw error;
	}
}
