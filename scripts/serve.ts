// The web server: hands requests for files to the chain itself (large chunks, no detour), all others to kit's handler.
// Settings come from the environment; see docs/settings.md.
import compression from 'compression';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { pathToFileURL } from 'node:url';
import { resolve } from 'node:path';
import { log } from '#server/log';
import { settings } from '#server/settings';

const { IANUA_HOST, IANUA_ORIGIN, IANUA_PORT, IANUA_TRUST_PROXY } = settings();

// What adapter-node reads at import. Bodies are bounded below and, for uploads, by the intake.
process.env.ORIGIN = IANUA_ORIGIN;
process.env.BODY_SIZE_LIMIT = 'Infinity';
if (IANUA_TRUST_PROXY) process.env.ADDRESS_HEADER = 'x-forwarded-for';

type Handler = (request: IncomingMessage, response: ServerResponse) => void;
type Deliver = (request: IncomingMessage, response: ServerResponse, address: string) => Promise<boolean>;
const { handler } = (await import(pathToFileURL(resolve('build/handler.js')).href)) as { handler: Handler };
const deliver = (globalThis as { ianuaDeliverFile?: Deliver }).ianuaDeliverFile!;

// what is built lies compressed already, files and pictures do not shrink: this is for pages and JSON
const compress = compression() as unknown as (request: IncomingMessage, response: ServerResponse, next: () => void) => void;

/** Ms for which the rest of a body is read that nobody wants any more. */
const lingering = 30_000;

/**
 * An answer given before the whole body was read: a client that sends first and reads then would wait for ever, or lose the answer
 * to a reset of the connection. The rest is read and thrown away for a while, then the connection is closed (RFC 9112, 9.6).
 */
function linger(request: IncomingMessage, response: ServerResponse): void {
	response.once('finish', () => {
		if (request.complete || request.destroyed) return;
		request.removeAllListeners('data');
		request.resume();
		const enough = setTimeout(() => request.socket.destroy(), lingering);
		request.once('close', () => clearTimeout(enough));
	});
}

function addressOf(request: IncomingMessage): string {
	const forwarded = IANUA_TRUST_PROXY
		? String(request.headers['x-forwarded-for'] ?? '')
				.split(',')
				.pop()
				?.trim()
		: '';
	return forwarded || (request.socket.remoteAddress ?? '');
}

const server = createServer((request, response) => {
	linger(request, response);
	deliver(request, response, addressOf(request)).then(
		(done) => {
			if (!done) compress(request, response, () => handler(request, response));
		},
		() => response.destroy()
	);
});
server.requestTimeout = 0; // an upload may take as long as it takes; headers still have 60 s
// A connection that is kept is closed by whoever is in front, not by us under its next request (RFC 9112, 9.5): proxies keep theirs for 60 s.
server.keepAliveTimeout = 65_000;
server.listen(IANUA_PORT, IANUA_HOST, () => process.send?.('listening'));
server.on('error', (error) => {
	console.error(error.message);
	process.exit(1);
});

/**
 * Whether an error that nobody awaited is that of a connection to the database: it was reset, or gone at the very moment of writing. Who
 * awaits a query on such a connection is refused, and the next one has a new connection: the server outlives its database.
 */
function isLostConnection(error: Error & { code?: string }): boolean {
	return (
		['ECONNRESET', 'ECONNREFUSED', 'EPIPE', 'CONNECTION_CLOSED', 'CONNECTION_ENDED', '57P01', '57P02', '57P03'].includes(error.code ?? '') ||
		(error instanceof TypeError && /nextWrite \(.*postgres.*connection\.js/.test(error.stack ?? ''))
	);
}
process.on('uncaughtException', (error) => {
	if (isLostConnection(error)) {
		log().warn({ err: error }, 'a connection to the database was lost');
		return;
	}
	log().fatal({ err: error }, 'unexpected error; the server ends');
	process.exit(1);
});

let ending = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
	process.on(signal, () => {
		if (ending) return;
		ending = true;
		const jobs = (globalThis as { ianuaStopJobs?: () => Promise<void> }).ianuaStopJobs?.() ?? Promise.resolve();
		server.close(() => void jobs.finally(() => process.exit(0)));
		server.closeIdleConnections();
		setTimeout(() => process.exit(0), 6000).unref();
	});
}
process.on('disconnect', () => process.kill(process.pid, 'SIGTERM'));
