// Pictures on pages, and the site's mark: kept in the store, sent as WebP in the widths that pages need.
import { stat } from 'node:fs/promises';
import { IanuaError } from '#core/errors';
import { db, sql } from '../db/client';
import { picture } from '../db/schema';
import { exists, keep, madePath, original } from '../store/store';
import { runInWorker } from '../pdf/helpers';
import { keepPicture } from './cover';

/** Widest picture kept, and the widths that are sent, in px. */
const widest = 2000;
const widths = [64, 400, 800, 1600] as const;

export interface KeptPicture {
	/** Its checksum: the name by which pages show it. */
	readonly picture: string;
	readonly width: number;
	readonly height: number;
}

/** Keeps a picture sent by staff. */
export async function addPicture(stream: AsyncIterable<Uint8Array>, actor: string): Promise<KeptPicture> {
	const { sha256, width, height } = await keepPicture(stream, widest);
	await db().insert(picture).values({ sha256, width, height, createdBy: actor }).onConflictDoNothing();
	return { picture: sha256, width, height };
}

/** Keeps a picture of the site once more, turned to the right by some degrees; by none it is itself. Throws `not-found` where it is none of the site's. */
export async function turnPicture(sha256: string, turn: number, actor: string): Promise<KeptPicture> {
	const [row] = await sql()<{ width: number; height: number }[]>`select width, height from picture where sha256 = ${sha256}`;
	if (!row) throw new IanuaError('not-found');
	if (!turn) return { picture: sha256, ...row };
	const made = await runInWorker('picture', { path: await original(sha256), widest, turn });
	await keep(made);
	await db().insert(picture).values({ sha256: made.sha256, width: made.width, height: made.height, createdBy: actor }).onConflictDoNothing();
	return { picture: made.sha256, width: made.width, height: made.height };
}

/** The file of a picture in the next of the widths; null where there is no such picture. */
export async function picturePath(sha256: string, wish: number): Promise<{ path: string; bytes: number } | null> {
	if (!/^[0-9a-f]{64}$/.test(sha256)) return null;
	const [row] = await sql()`select 1 from picture where sha256 = ${sha256}`;
	if (!row) return null;
	const width = widths.find((w) => w >= wish) ?? widths.at(-1)!;
	const path = madePath(sha256, `picture-${width}.webp`);
	if (!(await exists(path))) await runInWorker('narrower', { sha256, width, path });
	return { path, bytes: (await stat(path)).size };
}
