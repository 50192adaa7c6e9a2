// Last link of the chain: the bytes. Large files go out by the node server itself, in large chunks; kit's response path
// (pictures, and everything in development) gets the same answer as a Response.
import { open, type FileHandle } from 'node:fs/promises';
import { once } from 'node:events';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { Readable } from 'node:stream';
import { log } from '../log';
import { answerFile, TurnedAway, type Answer } from './chain';

const chunkSize = 512 * 1024;

async function* chunks(handle: FileHandle, first: number, length: number): AsyncGenerator<Buffer> {
	let [at, left] = [first, length];
	while (left > 0) {
		const buffer = Buffer.allocUnsafeSlow(Math.min(chunkSize, left));
		const { bytesRead } = await handle.read(buffer, 0, buffer.length, at);
		if (bytesRead === 0) throw new Error('the stored file is shorter than it should be');
		at += bytesRead;
		left -= bytesRead;
		yield bytesRead === buffer.length ? buffer : buffer.subarray(0, bytesRead);
	}
}

/** Sends an answer on a node response. A reader who goes away ends it quietly. */
export async function sendAnswer(answer: Answer, response: ServerResponse): Promise<void> {
	if (!answer.file) {
		response.writeHead(answer.status, answer.headers).end();
		return;
	}
	const handle = await open(answer.file.path, 'r');
	try {
		response.writeHead(answer.status, answer.headers);
		for await (const chunk of chunks(handle, answer.file.first, answer.file.length)) {
			if (response.destroyed) return;
			if (!response.write(chunk)) {
				// whichever comes first: the socket has room again, or the reader went away
				const gone = new AbortController();
				await Promise.race([once(response, 'drain', { signal: gone.signal }), once(response, 'close', { signal: gone.signal })]).catch(() => {});
				gone.abort();
			}
		}
		response.end();
	} finally {
		await handle.close();
	}
}

/** The same answer as a Response, for kit. */
export async function responseOf(answer: Answer): Promise<Response> {
	if (!answer.file) return new Response(null, { status: answer.status, headers: answer.headers });
	const handle = await open(answer.file.path, 'r');
	const stream = Readable.from(chunks(handle, answer.file.first, answer.file.length)).on('close', () => void handle.close());
	return new Response(Readable.toWeb(stream) as ReadableStream, { status: answer.status, headers: answer.headers });
}

const fileAddress = /^\/d\/([a-z0-9-]{1,80})\/file$/;

/**
 * Takes a request for `/d/<slug>/file` before kit sees it. False where it is another address, or where the answer is a
 * refusal: that one kit words, in a page or as problem details.
 */
export async function deliverFile(request: IncomingMessage, response: ServerResponse, address: string): Promise<boolean> {
	if (request.method !== 'GET' && request.method !== 'HEAD') return false;
	const url = request.url ?? '';
	if (!url.startsWith('/d/')) return false;
	const mark = url.indexOf('?');
	const match = fileAddress.exec(mark < 0 ? url : url.slice(0, mark));
	if (!match) return false;
	let answer: Answer;
	try {
		answer = await answerFile({
			method: request.method,
			slug: match[1]!,
			query: new URLSearchParams(mark < 0 ? '' : url.slice(mark + 1)),
			address,
			header: (name) => {
				const value = request.headers[name];
				return Array.isArray(value) ? value.join(', ') : (value ?? null);
			}
		});
	} catch (error) {
		if (!(error instanceof TurnedAway)) log().error({ err: error, url: match[0] }, 'file not answered');
		return false;
	}
	await sendAnswer(answer, response).catch((error: unknown) => {
		log().warn({ err: error, url: match[0] }, 'delivery broke off');
		response.destroy();
	});
	return true;
}
