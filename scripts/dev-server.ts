// The web server of development: holds the port, and behind it runs Vite with kit in a process of its own. When a file of the server is
// saved that process ends, with its jobs, helpers and connections, and a new one starts; whoever asks meanwhile waits for it. So the next
// request runs the new code, and nothing of the old is left. Components and styles are exchanged by Vite in place.
import { spawn, type ChildProcess } from 'node:child_process';
import { statSync, watch } from 'node:fs';
import { createServer, request as ask, type IncomingMessage, type ServerResponse } from 'node:http';
import { connect } from 'node:net';
import { join } from 'node:path';
import type { Duplex } from 'node:stream';
import { freePort } from '#server/db/cluster';

/** What runs in the server's process and holds something open there, or is loaded by what does. */
const watched = ['core', 'src/lib/server', 'src/hooks.server.ts'];
/** Ms between two tries to reach a process that is coming up. */
const again = 50;
/** Ms after which a process that was told to end is made to. */
const patience = 5_000;

interface Server {
	readonly process: ChildProcess;
	readonly port: number;
	/** Settles once it has answered a request. */
	readonly ready: Promise<void>;
}

async function start(): Promise<Server> {
	const port = await freePort();
	const child = spawn(
		process.execPath,
		['node_modules/vite/bin/vite.js', 'dev', '--port', String(port), '--strictPort', '--host', '127.0.0.1', '--clearScreen', 'false', '--logLevel', 'warn'],
		{
			stdio: ['ignore', 'inherit', 'inherit']
		}
	);
	const ready = (async () => {
		while (child.exitCode === null && child.signalCode === null) {
			try {
				// any answer says that the code was loaded: one in words about a fault in it is for the browser to show
				await fetch(`http://127.0.0.1:${port}/healthz`);
				return;
			} catch {
				await new Promise((go) => setTimeout(go, again));
			}
		}
	})();
	return { process: child, port, ready };
}

function end({ process: child }: Server): Promise<void> {
	if (child.exitCode !== null || child.signalCode !== null) return Promise.resolve();
	return new Promise((done) => {
		const enough = setTimeout(() => child.kill('SIGKILL'), patience);
		child.once('exit', () => {
			clearTimeout(enough);
			done();
		});
		child.kill('SIGTERM');
	});
}

/** When the current process was started (epoch ms). */
let began = Date.now();
let current = start();
/** Saved since the current one began, and not yet acted on. */
let stale = false;

function startAgain(): void {
	if (stale) return;
	stale = true;
	current = current.then(end).then(() => {
		stale = false;
		began = Date.now();
		return start();
	});
}
/** Whether a file was written, or taken away, since the current process began: the system tells of more than that. */
function changed(path: string): boolean {
	const { mtimeMs } = statSync(path, { throwIfNoEntry: false }) ?? { mtimeMs: Infinity };
	return mtimeMs >= began;
}
for (const path of watched)
	watch(path, { recursive: true }, (_, name) => {
		if (name === null || name.endsWith('.test.ts')) return;
		if (changed(path.endsWith('.ts') ? path : join(path, name))) startAgain();
	});

/** The process that has the newest code, once it is ready. A save made just before the question has been told of by then. */
async function newest(): Promise<Server> {
	await new Promise((go) => setTimeout(go, again));
	for (;;) {
		const server = await current;
		await server.ready;
		if (!stale) return server;
	}
}

/** Hands a request on; one without a body, whose process ended under it, goes to the next. */
async function handOn(request: IncomingMessage, response: ServerResponse): Promise<void> {
	const { port } = await newest();
	const { method = 'GET', url, headers } = request;
	const hasBody = method !== 'GET' && method !== 'HEAD';
	const on = ask({ host: '127.0.0.1', port, method, path: url, headers, agent: false }, (answer) => {
		response.writeHead(answer.statusCode ?? 502, answer.rawHeaders);
		answer.pipe(response);
		answer.on('error', () => response.destroy());
	});
	on.on('error', () => {
		if (response.headersSent || hasBody) response.destroy();
		else void handOn(request, response);
	});
	response.on('close', () => on.destroy());
	if (hasBody) request.pipe(on);
	else on.end();
}

/** Hands on the connection by which Vite tells the browser what to exchange. */
async function handOver(request: IncomingMessage, from: Duplex, head: Buffer): Promise<void> {
	from.on('error', () => from.destroy());
	const { port } = await newest();
	const to = connect(port, '127.0.0.1', () => {
		const { rawHeaders, method, url } = request;
		const lines = rawHeaders.flatMap((name, i) => (i % 2 ? [] : [`${name}: ${rawHeaders[i + 1]}`]));
		to.write(`${method} ${url} HTTP/1.1\r\n${lines.join('\r\n')}\r\n\r\n`);
		to.write(head);
		from.pipe(to).pipe(from);
	});
	to.on('error', () => from.destroy());
	to.on('close', () => from.destroy());
	from.on('close', () => to.destroy());
}

const front = createServer((request, response) => void handOn(request, response));
front.on('upgrade', (request, socket, head) => void handOver(request, socket, head));
front.listen(Number(process.env.IANUA_PORT), process.env.IANUA_HOST || '127.0.0.1', () => void newest().then(() => process.send?.('listening')));

async function close(): Promise<void> {
	front.closeAllConnections();
	await end(await current);
	process.exit(0);
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void close());
process.on('disconnect', () => void close());
