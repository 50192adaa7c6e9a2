// Reading a file by ranges, against a server that cuts connections, is down for a while, or turns the reader away.
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { PDFDataRangeTransport } from 'pdfjs-dist';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { stepBytes } from '#core/reading/opening';
import { Ranges } from './file-ranges';

const file = Buffer.from(Array.from({ length: 2 * stepBytes + 1000 }, (_, i) => (i * 31) % 251));

let server: Server;
let address: string;
/** What the server does with a request; null: as it should. */
let answers: ((request: IncomingMessage, response: ServerResponse) => boolean)[];
let asked: string[];
let told: (boolean | string)[];
let room: Ranges | undefined;
const events = { lost: (lost: boolean) => void told.push(lost), refused: (why: string) => void told.push(why) };

beforeEach(async () => {
	[answers, asked, told] = [[], [], []];
	// the browser's window, which tells when the network is back
	const window = new EventTarget();
	Object.assign(globalThis, { addEventListener: window.addEventListener.bind(window), dispatchEvent: window.dispatchEvent.bind(window) });
	server = createServer((request, response) => {
		const { range } = request.headers;
		asked.push(range ?? '');
		if (answers.shift()?.(request, response)) return;
		const [, first, last] = /^bytes=(\d+)-(\d+)$/.exec(range ?? '')!.map(Number) as [number, number, number];
		const part = file.subarray(first, last + 1);
		response.writeHead(206, { 'content-range': `bytes ${first}-${first + part.length - 1}/${file.length}`, 'content-length': part.length }).end(part);
	});
	await new Promise<void>((up) => server.listen(0, '127.0.0.1', up));
	address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/file`;
});
const open = () => (room = new Ranges(address, events));
afterEach(() => {
	room?.close();
	server.closeAllConnections();
	server.close();
});

const cut = (request: IncomingMessage) => (request.socket.destroy(), true);
const say = (status: number) => (_: IncomingMessage, response: ServerResponse) => (response.writeHead(status).end(), true);

/** What pdf.js's own transport is to this one: it takes what comes. */
class Base {
	readonly came = new Map<number, number>();
	waiting: (() => void)[] = [];
	constructor(
		readonly length: number,
		readonly initialData: Uint8Array
	) {}
	onDataRange(begin: number, bytes: Uint8Array) {
		expect(Buffer.compare(Buffer.from(bytes), file.subarray(begin, begin + bytes.length))).toBe(0);
		this.came.set(begin, bytes.length);
		this.waiting.shift()?.();
	}
	next = () => new Promise<void>((go) => this.waiting.push(go));
}
const transportOf = (ranges: Ranges, length: number, first: ArrayBuffer) =>
	ranges.transport(Base as unknown as typeof PDFDataRangeTransport, length, first) as unknown as Base & {
		requestDataRange(begin: number, end: number): void;
		abort(): void;
	};

describe('a file by ranges', () => {
	it('begins with its first bytes and its length, and has its last ones before they are asked for', async () => {
		const ranges = open();
		const { length, first } = await ranges.begin();
		expect([length, first.byteLength]).toEqual([file.length, stepBytes]);
		const transport = transportOf(ranges, length, first);
		expect(transport.initialData.length).toBe(stepBytes);
		const came = transport.next();
		transport.requestDataRange(2 * stepBytes, file.length);
		await came;
		expect(transport.came).toEqual(new Map([[2 * stepBytes, 1000]]));
		// asked for once, though it was wanted twice
		expect(asked).toEqual([`bytes=0-${stepBytes - 1}`, `bytes=${2 * stepBytes}-${file.length - 1}`]);
		expect(told).toEqual([]);
	});
	it('asks for what the first page takes all at once, and gives it when it is wanted, whole or in part', async () => {
		const ranges = open();
		const { length, first } = await ranges.begin([2]);
		const transport = transportOf(ranges, length, first);
		const came = transport.next();
		// the middle was not asked for, the end was
		transport.requestDataRange(stepBytes, file.length);
		await came;
		expect(transport.came).toEqual(new Map([[stepBytes, stepBytes + 1000]]));
		expect(asked.sort()).toEqual([`bytes=0-${stepBytes - 1}`, `bytes=${2 * stepBytes}-${3 * stepBytes - 1}`, `bytes=${stepBytes}-${2 * stepBytes - 1}`].sort());
		room!.close();
		// all of it in the first range
		asked = [];
		const whole = await open().begin([1, 2]);
		expect(whole.first.byteLength).toBe(file.length);
		expect(asked).toEqual([`bytes=0-${3 * stepBytes - 1}`]);
	});
	it('asks again until it comes, and says once that the connection is away and once that it is back', async () => {
		answers = [cut, say(503), cut];
		const ranges = open();
		const begun = ranges.begin();
		// not slower than the browser knows of the network
		const poke = setInterval(() => dispatchEvent(new Event('online')), 20);
		const { length } = await begun;
		clearInterval(poke);
		expect(length).toBe(file.length);
		expect(asked.filter((range) => range.startsWith('bytes=0-')).length).toBe(4);
		expect(told).toEqual([true, false]);
	});
	it('two ranges that wait at once are one trouble, over when both have come', async () => {
		const ranges = open();
		const { length, first } = await ranges.begin();
		await expect.poll(() => asked.length).toBe(2);
		const transport = transportOf(ranges, length, first);
		answers = [cut, say(500)];
		const both = [transport.next(), transport.next()];
		transport.requestDataRange(stepBytes, stepBytes + 100);
		transport.requestDataRange(stepBytes + 100, stepBytes + 200);
		await expect.poll(() => asked.length).toBe(4);
		await new Promise((go) => setTimeout(go, 20));
		dispatchEvent(new Event('online'));
		await Promise.all(both);
		expect(told).toEqual([true, false]);
		expect(transport.came.size).toBe(2);
	});
	it.each([401, 403, 404, 410])('%i while reading: withdrawn, and it is not asked again', async (status) => {
		const ranges = open();
		const { length, first } = await ranges.begin();
		await expect.poll(() => asked.length).toBe(2);
		answers = [say(status)];
		transportOf(ranges, length, first).requestDataRange(stepBytes, stepBytes + 100);
		await expect.poll(() => told).toEqual(['withdrawn']);
		expect(asked.length).toBe(3);
	});
	it('what the server cannot give at all is not asked for for ever', async () => {
		answers = [say(416)];
		await expect(open().begin()).rejects.toThrow('failed');
		expect([told, asked.length]).toEqual([['failed'], 1]);
	});
	it('too many requests are waited out', async () => {
		answers = [say(429)];
		const ranges = open();
		const begun = ranges.begin();
		await expect.poll(() => told).toEqual([true]);
		dispatchEvent(new Event('online'));
		await begun;
		expect(told).toEqual([true, false]);
	});
	it('a room that is closed waits for nothing', async () => {
		answers = Array.from({ length: 9 }, () => cut);
		const ranges = open();
		const begun = ranges.begin();
		await expect.poll(() => asked.length).toBe(1);
		ranges.close();
		await expect(begun).rejects.toThrow();
		await new Promise((go) => setTimeout(go, 50));
		expect(asked.length).toBe(1);
	});
});
