// Last link of the chain: the bytes. Large files go out by the node server itself, in large chunks; kit's response path
// (pictures, and everything in development) gets the same answer as a Response.
import { IanuaError } from '#core/errors';
import { open, readFile, stat, type FileHandle } from 'node:fs/promises';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { relative, sep } from 'node:path';
import { problemDetails } from '../http/problem';
import { newId } from '../id';
import { log } from '../log';
import { routed } from '../metrics';
import { settings } from '../settings';
import { fromBucket, isNear, signedAddress } from '../store/store';
import { answerAttachment, answerFile, TurnedAway, type Answer, type FileRequest } from './chain';

const chunkSize = 512 * 1024;

/** A part of a file of the store as a stream, from this machine's disk or from the bucket. Throws where there is no such file. */
export async function partOf({ path, first, length }: NonNullable<Answer['file']>): Promise<Readable> {
	const far = await fromBucket(path, first, length);
	if (far) return far;
	const handle = await open(path, 'r');
	return Readable.from(chunks(handle, first, length)).on('close', () => void handle.close());
}

/** A part of an open file, chunk by chunk. Throws where the file ends before. */
async function* chunks(handle: FileHandle, first: number, length: number): AsyncGenerator<Buffer> {
	let [offset, left] = [first, length];
	while (left > 0) {
		const buffer = Buffer.allocUnsafeSlow(Math.min(chunkSize, left));
		const bytes = await fill(handle, buffer, offset);
		offset += bytes;
		left -= bytes;
		yield buffer.subarray(0, bytes);
	}
}

async function fill(handle: FileHandle, buffer: Buffer, at: number): Promise<number> {
	const { bytesRead } = await handle.read(buffer, 0, buffer.length, at);
	if (bytesRead === 0) throw new Error('the stored file is shorter than it should be');
	return bytesRead;
}

/** Chunks that are free to be read into. Memory that is used again is far cheaper than fresh memory for every chunk. */
const free: Buffer[] = [];
const mostFree = 128;

/** Resolves once the bytes have been handed to the system (the buffer may be used again), false where the reader has gone. */
function written(response: ServerResponse, chunk: Buffer): Promise<boolean> {
	return new Promise((done) => response.write(chunk, (error) => done(!error)));
}

/**
 * Originals lately asked for, whole, in memory: bytes under a checksum never change, so a kept copy is never out of date. Deciding and
 * recording come before, each time. At most 64 MiB, of files up to 8 MiB; the one longest not asked for goes first.
 */
const kept = new Map<string, Buffer>();
const mostKept = { file: 8 * 1024 * 1024, all: 64 * 1024 * 1024 };
let keptBytes = 0;

async function keptContent(path: string): Promise<Buffer | null> {
	let content = kept.get(path);
	if (content) kept.delete(path);
	else {
		if ((await stat(path)).size > mostKept.file) return null;
		content = await readFile(path);
		const meanwhile = kept.get(path);
		if (meanwhile) return meanwhile;
		keptBytes += content.length;
	}
	kept.set(path, content);
	for (const [oldest, bytes] of kept) {
		if (keptBytes <= mostKept.all) break;
		kept.delete(oldest);
		keptBytes -= bytes.length;
	}
	return content;
}

/** Sends an answer on a node response: reads the next chunk while the one before is on its way. A reader who goes away ends it quietly. */
export async function sendAnswer(answer: Answer, response: ServerResponse): Promise<void> {
	if (answer.sent) response.once('close', answer.sent);
	if (!answer.file) {
		response.writeHead(answer.status, answer.headers).end(answer.content);
		return;
	}
	const { path, first, length } = answer.file;
	const far = await fromBucket(path, first, length);
	if (far) {
		response.writeHead(answer.status, answer.headers);
		await pipeline(far, response).catch((error: unknown) => {
			// a reader who goes away ends it quietly
			if (!response.destroyed || response.errored) throw error;
		});
		return;
	}
	const content = await keptContent(path);
	if (content) {
		response.writeHead(answer.status, answer.headers).end(content.subarray(first, first + length));
		return;
	}
	let [at, left] = [first, length];
	const handle = await open(path, 'r');
	const buffers: Buffer[] = [];
	const take = () => {
		const buffer = free.pop() ?? Buffer.allocUnsafeSlow(chunkSize);
		buffers.push(buffer);
		return buffer;
	};
	let sending: Promise<boolean> = Promise.resolve(true);
	try {
		response.writeHead(answer.status, answer.headers);
		const pair = [take(), left > chunkSize ? take() : Buffer.alloc(0)] as const;
		for (let turn = 0; left > 0; turn++) {
			const buffer = pair[turn % 2]!;
			const bytes = await fill(handle, left < buffer.length ? buffer.subarray(0, left) : buffer, at);
			at += bytes;
			left -= bytes;
			if (!(await sending) || response.destroyed) return;
			sending = written(response, buffer.subarray(0, bytes));
		}
		if (await sending) response.end();
	} finally {
		await sending;
		if (!response.destroyed) for (const buffer of buffers) if (free.length < mostFree) free.push(buffer);
		await handle.close();
	}
}

/** The same answer as a Response, for kit. */
export async function responseOf(answer: Answer): Promise<Response> {
	if (!answer.file) answer.sent?.();
	if (!answer.file) return new Response(answer.content ? new Uint8Array(answer.content) : null, { status: answer.status, headers: answer.headers });
	const stream = (await partOf(answer.file)).on('close', () => answer.sent?.());
	return new Response(Readable.toWeb(stream) as ReadableStream, { status: answer.status, headers: answer.headers });
}

/**
 * The answer in which the proxy in front is told to send the file by itself (`X-Accel-Redirect`); null where we send it: there is no such
 * proxy, the request did not come by one, or the file is none of the store. What part of it is asked for the proxy reads from the request
 * again, so it is left to it only where there is no doubt.
 */
async function handedOver({ status, headers, file, ...answer }: Answer, request: IncomingMessage): Promise<Answer | null> {
	const { IANUA_FILES_BY_PROXY: address, bucket, files } = settings();
	if (!address || !file || request.headers['x-forwarded-for'] === undefined) return null;
	if (status === 200 && request.headers.range !== undefined) return null;
	const within = relative(files, file.path);
	if (!/^(?:originals|made)\//.test(within.replaceAll(sep, '/'))) return null;
	if (bucket && !(await isNear(file.path))) return null;
	// what the proxy says itself of what it sends; of a whole file also that it has parts
	const { 'accept-ranges': unit, 'content-length': _length, 'content-range': _range, ...told } = headers;
	return {
		...answer,
		status: 200,
		headers: { ...told, ...(status === 206 && unit ? { 'accept-ranges': unit } : {}), 'x-accel-redirect': `${address}${within.replaceAll(sep, '/')}` }
	};
}

/**
 * The answer that leads to an address at which the bucket gives the file itself; null where it comes through here: settings ask for no such
 * addresses, the reading room asks, which reads by parts from its own origin, or nothing of a file is to be sent.
 */
async function ledToBucket({ status: _status, headers, file, ...answer }: Answer, { query }: FileRequest): Promise<Answer | null> {
	if (!file || query.get('for') === 'reading') return null;
	const told = { type: headers['content-type'] ?? 'application/octet-stream', disposition: headers['content-disposition'] ?? 'attachment' };
	const location = await signedAddress(file.path, told);
	if (location === null) return null;
	return { ...answer, status: 302, headers: { location, 'cache-control': 'no-store', 'referrer-policy': 'no-referrer', 'content-length': '0' } };
}

const fileRoute = '/d/[slug]/file';
const fileAddress = /^\/d\/([a-z0-9-]{1,80})\/(?:file|attachment\/([1-9]\d{0,4}))$/;

async function sendFromNearest(answer: Answer, ask: FileRequest, request: IncomingMessage, response: ServerResponse): Promise<void> {
	await sendAnswer((await handedOver(answer, request)) ?? (await ledToBucket(answer, ask)) ?? answer, response);
}

/**
 * Takes a request for `/d/<slug>/file` or `/d/<slug>/attachment/<n>` before kit sees it. False where it is another address, or where the
 * answer is a refusal: that one kit words, in a page or as problem details.
 */
export async function deliverFile(request: IncomingMessage, response: ServerResponse, address: string): Promise<boolean> {
	if (request.method !== 'GET' && request.method !== 'HEAD') return false;
	const url = request.url ?? '';
	if (!url.startsWith('/d/')) return false;
	const mark = url.indexOf('?');
	const match = fileAddress.exec(mark < 0 ? url : url.slice(0, mark));
	if (!match) return false;
	const [, slug, attachment] = match;
	routed.set(response, fileRoute);
	const requestId = newId();
	response.setHeader('x-request-id', requestId);
	const ask: FileRequest = {
		requestId,
		method: request.method,
		// the address of a file has a slug
		slug: slug!,
		query: new URLSearchParams(mark < 0 ? '' : url.slice(mark + 1)),
		address,
		header: (name) => {
			const value = request.headers[name];
			return Array.isArray(value) ? value.join(', ') : (value ?? null);
		}
	};
	let answer: Answer;
	try {
		answer = attachment === undefined ? await answerFile(ask) : await answerAttachment(ask, Number(attachment));
	} catch (error) {
		if (!(error instanceof TurnedAway) && !(error instanceof IanuaError && (error.status < 500 || error.code === 'busy')))
			log().error({ err: error, route: fileRoute }, 'file not answered');
		return false;
	}
	await sendFromNearest(answer, ask, request, response).catch((error: unknown) => {
		log().warn({ err: error, route: fileRoute }, 'delivery broke off');
		// before the head has left it can still be said
		if (response.headersSent) response.destroy();
		else
			response
				.writeHead(500, { 'content-type': 'application/problem+json', 'cache-control': 'no-store' })
				.end(JSON.stringify(problemDetails(new IanuaError('unexpected'))));
	});
	return true;
}
