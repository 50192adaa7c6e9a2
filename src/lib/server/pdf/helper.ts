// A helper process: does the work on one file of unknown origin at a time (checksum, first look, check of a PDF; pictures), so that the server itself neither waits for
// programs to start nor holds pictures and text. The programs it runs are bounded one by one (run.ts). Asked by helpers.ts; the process is
// src/entry/pdf-helper.ts.
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import sharp from 'sharp';
import { IanuaError, type ErrorCode } from '#core/errors';
import type { Element } from '#core/reading/structure';
import { original, settle, temporaryPath, type Received } from '../store/store';
import { firstFacts, passwordState, structureOf, type FirstFacts, type Structure } from './facts';
import { look, type Looked } from './look';
import { coverFrom, mostPixels, remakeCovers, type CoverOf } from './pictures';
import { pack, packedPath } from './derivatives';
import { openingSteps } from './opening';
import { whenEnded } from './run';
import { imagesOn } from './page-images';
import { tagsOf } from './tags';
import { guessLanguage, hasWords, wordsOf } from './text';

/** What a helper is asked, and what it answers. */
export interface Work {
	/** Checksum and first look at a file that has arrived. */
	arrive: { ask: { path: string; name: string }; answer: { sha256: string; bytes: number; looked: Looked } };
	/** The first look at a file whose checksum is known. */
	look: { ask: { path: string; bytes: number; name: string }; answer: Looked };
	/** Everything else the check reads and makes. */
	check: { ask: { path: string; sha256: string; version: string; first: FirstFacts | null }; answer: Checked };
	/** A picture of staff's (PNG, JPEG, WebP) as PNG in an unfinished file: upright, or turned to the right by so many degrees, within a width, without what it carries beside its pixels. */
	picture: { ask: { path: string; widest: number; turn?: number }; answer: Received & { width: number; height: number } };
	/** A picture of the store as WebP within a width, put at a path. */
	narrower: { ask: { sha256: string; width: number; path: string }; answer: null };
	/** The covers of a page or a picture of the store; false where they cannot be made. */
	covers: { ask: CoverOf; answer: boolean };
	/** Steps of the file for reading that its first page takes (core/reading/opening.ts). */
	opening: { ask: { sha256: string; packed: boolean }; answer: number[] };
	/** The tags of some pages of a file of the store. */
	tags: { ask: { sha256: string; from: number; until: number }; answer: (Element | null)[] };
	/** Where the pictures of a page of a file of the store stand. */
	images: { ask: { sha256: string; page: number }; answer: number[] };
}

export type Checked =
	| { readonly state: 'locked' | 'unreadable' }
	| {
			readonly state: 'read';
			readonly first: FirstFacts;
			readonly structure: Structure;
			readonly coverPage: number | null;
			readonly pages: readonly string[];
			readonly textPages: number;
			/** False where the text broke off. */
			readonly whole: boolean;
			readonly guessed: string | null;
			readonly packed: boolean;
	  };

/** Pages tried for a cover where the first cannot be drawn. */
const coverTries = 5;

const work: { [K in keyof Work]: (ask: Work[K]['ask']) => Promise<Work[K]['answer']> } = {
	arrive: async ({ path, name }) => {
		const { sha256, bytes } = await checksum(path);
		return { sha256, bytes, looked: await look(path, bytes, name) };
	},
	look: ({ path, bytes, name }) => look(path, bytes, name),
	check: async ({ path, sha256, version, first: known }) => {
		let first = known;
		if (!first) {
			const password = await passwordState(path);
			if (password === 'needed') return { state: 'locked' };
			first = await firstFacts(path, version, password === 'opens');
			if (!first) return { state: 'unreadable' };
		}
		const structure = await structureOf(path);
		const coverPage = await drawCover(path, sha256, first.pages);
		const words = await wordsOf(path, first.pages);
		return {
			state: 'read',
			first,
			structure,
			coverPage,
			pages: words.pages,
			textPages: words.pages.filter(hasWords).length,
			whole: words.whole,
			guessed: structure.language ? null : guessLanguage(words.pages),
			// a signature holds for the very bytes: a signed file is read as it is
			packed: structure.signed || coverPage === null ? false : await pack(path, sha256)
		};
	},
	opening: async ({ sha256, packed }) => openingSteps(packed ? packedPath(sha256) : await original(sha256)),
	tags: async ({ sha256, from, until }) => tagsOf(await original(sha256), from, until),
	images: async ({ sha256, page }) => imagesOn(await original(sha256), page),
	picture: async ({ path, widest, turn }) => {
		const made = await temporaryPath('.png');
		try {
			const image = sharp(path, { limitInputPixels: mostPixels });
			const { format } = await image.metadata();
			if (!['png', 'jpeg', 'webp'].includes(format)) throw new IanuaError('picture-unusable');
			const within = { width: widest, height: widest * 3, fit: 'inside', withoutEnlargement: true } as const;
			// whole quarters keep the picture's own pixels; of other angles the corners let through
			const upright = turn === undefined ? image.rotate() : image.rotate(turn, { background: '#0000' });
			const { width, height } = await upright.resize(within).png().toFile(made);
			return { path: made, ...(await checksum(made)), width, height };
		} catch (error) {
			await rm(made, { force: true });
			throw (error as { code?: string }).code === 'ENOSPC' || error instanceof IanuaError ? error : new IanuaError('picture-unusable');
		}
	},
	narrower: async ({ sha256, width, path }) => {
		const made = await temporaryPath('.webp');
		await sharp(await original(sha256), { limitInputPixels: mostPixels })
			.resize({ width, withoutEnlargement: true })
			.webp({ quality: 84 })
			.toFile(made);
		await settle(made, path);
		return null;
	},
	covers: remakeCovers
};

async function checksum(path: string): Promise<{ sha256: string; bytes: number }> {
	const hash = createHash('sha256');
	let bytes = 0;
	for await (const chunk of createReadStream(path, { highWaterMark: 1024 * 1024 }) as AsyncIterable<Buffer>) {
		hash.update(chunk);
		bytes += chunk.length;
	}
	return { sha256: hash.digest('hex'), bytes };
}

async function drawCover(path: string, sha256: string, pages: number): Promise<number | null> {
	for (let page = 1; page <= Math.min(pages, coverTries); page++) if (await coverFrom(path, sha256, page)) return page;
	return null;
}

export interface Asked {
	readonly id: number;
	readonly kind: keyof Work;
	readonly ask: unknown;
}
export type Answered = (
	| { readonly answer: unknown }
	| { readonly refused: { code: ErrorCode; facts: Record<string, string> } }
	| { readonly broke: { message: string; code?: string } }
) & {
	readonly id: number;
	/** Programs that one of their limits ended meanwhile. */
	readonly ended: readonly string[];
};

/** Does one piece of work; what it throws becomes the answer, the refusals of the catalogue by their code. */
export async function answerTo({ id, kind, ask }: Asked): Promise<Answered> {
	const ended: string[] = [];
	whenEnded((program) => ended.push(program));
	try {
		return { id, ended, answer: await (work[kind] as (ask: unknown) => Promise<unknown>)(ask) };
	} catch (caught) {
		const error = caught as Error & { code?: string };
		return error instanceof IanuaError
			? { id, ended, refused: { code: error.code, facts: { ...error.facts } } }
			: { id, ended, broke: { message: error.message, code: error.code } };
	}
}
