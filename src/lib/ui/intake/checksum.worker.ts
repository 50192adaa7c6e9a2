// Takes the SHA-256 of files apart from the page, piece by piece, so that neither memory nor the page suffers.
import { createSHA256 } from 'hash-wasm';

export interface ChecksumRequest {
	readonly key: number;
	readonly file: Blob;
}
export interface ChecksumAnswer {
	readonly key: number;
	/** Null where the file could not be read. */
	readonly sha256: string | null;
}

const piece = 4 * 1024 * 1024;

self.onmessage = async ({ data }: MessageEvent<ChecksumRequest>) => {
	const { key, file } = data;
	try {
		const hash = await createSHA256();
		hash.init();
		for (let offset = 0; offset < file.size; offset += piece) hash.update(new Uint8Array(await file.slice(offset, offset + piece).arrayBuffer()));
		self.postMessage({ key, sha256: hash.digest('hex') } satisfies ChecksumAnswer);
	} catch {
		self.postMessage({ key, sha256: null } satisfies ChecksumAnswer);
	}
};
