// A helper process: does the work on one PDF at a time (checksum, first look, check), so that the server itself neither waits for
// programs to start nor holds pictures and text. The programs it runs are bounded one by one (run.ts). Asked by helpers.ts.
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import sharp from 'sharp';
import { IanuaError, type ErrorCode } from '#core/errors';
import { firstFacts, passwordState, structureOf, type FirstFacts, type Structure } from './facts';
import { look, type Looked } from './look';
import { coverFrom } from './pictures';
import { pack } from './remake';
import { guessLanguage, hasWords, wordsOf } from './text';

/** What a helper is asked, and what it answers. */
export interface Work {
	/** Checksum and first look at a file that has arrived. */
	arrive: { ask: { path: string; name: string }; answer: { sha256: string; bytes: number; looked: Looked } };
	/** The first look at a file whose checksum is known. */
	look: { ask: { path: string; bytes: number; name: string }; answer: Looked };
	/** Everything else the check reads and makes. */
	check: { ask: { path: string; sha256: string; version: string; first: FirstFacts | null }; answer: Checked };
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
		const hash = createHash('sha256');
		let bytes = 0;
		for await (const chunk of createReadStream(path, { highWaterMark: 1024 * 1024 }) as AsyncIterable<Buffer>) {
			hash.update(chunk);
			bytes += chunk.length;
		}
		return { sha256: hash.digest('hex'), bytes, looked: await look(path, bytes, name) };
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
	}
};

async function drawCover(path: string, sha256: string, pages: number): Promise<number | null> {
	for (let page = 1; page <= Math.min(pages, coverTries); page++) if (await coverFrom(path, sha256, page)) return page;
	return null;
}

export interface Asked {
	readonly id: number;
	readonly kind: keyof Work;
	readonly ask: unknown;
}
export type Answered =
	| { readonly id: number; readonly answer: unknown }
	| { readonly id: number; readonly refused: { code: ErrorCode; facts: Record<string, string> } }
	| { readonly id: number; readonly broke: { message: string; code?: string } };

if (process.send && process.argv[2] === 'pdf-helper') {
	// as many helpers as cores: each keeps to one
	sharp.concurrency(1);
	sharp.cache(false);
	process.on('message', ({ id, kind, ask }: Asked) => {
		(work[kind] as (ask: unknown) => Promise<unknown>)(ask).then(
			(answer) => process.send!({ id, answer } satisfies Answered),
			(error: Error & { code?: string }) =>
				process.send!(
					error instanceof IanuaError
						? ({ id, refused: { code: error.code, facts: { ...error.facts } } } satisfies Answered)
						: ({ id, broke: { message: error.message, code: error.code } } satisfies Answered)
				)
		);
	});
	process.on('disconnect', () => process.exit(0));
	// the terminal's Ctrl-C is for the server, which lets its helpers go
	process.on('SIGINT', () => {});
}
