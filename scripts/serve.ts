// The web server: hands requests for files to the chain itself (large chunks, no detour), all others to kit's handler.
// Settings come from the environment; see docs/settings.md.
import compression from 'compression';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { pathToFileURL } from 'node:url';
import { resolve } from 'node:path';
import { clientAddress } from '#server/http/proxies';
import { connectionHeader } from '#server/http/connection';
import { watchConnections } from '#server/http/stillness';
import { log } from '#server/log';
import { settings, unknownSettings } from '#server/settings';

/** What keeps the server from starting is said in a sentence; where in the code it was found is for whoever asks for it. */
function cannotStart(error: unknown): never {
	const { message, stack } = error as Error;
	console.error(process.env.IANUA_LOG === 'debug' ? stack : message);
	process.exit(1);
}

const { IANUA_HOST, IANUA_ORIGIN, IANUA_PORT, IANUA_STOP_WAIT, proxies } = (() => {
	try {
		return settings();
	} catch (error) {
		return cannotStart(error);
	}
})();
for (const { name, nearest } of unknownSettings(process.env)) console.warn(`${name} is not a setting, and nothing reads it. The nearest that is: ${nearest}.`);

type Handler = (request: IncomingMessage, response: ServerResponse) => void;
type Deliver = (request: IncomingMessage, response: ServerResponse, address: string) => Promise<boolean>;

// What adapter-node reads at import. Bodies are bounded by the guard and the intake; the address comes from here alone.
process.env.ORIGIN = IANUA_ORIGIN;
process.env.BODY_SIZE_LIMIT = 'Infinity';
process.env.ADDRESS_HEADER = connectionHeader;
const { handler } = (await import(pathToFileURL(resolve('build/handler.js')).href).catch(cannotStart)) as { handler: Handler };
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

let ending = false;
let underWay = 0;
let ended: () => void = () => {};

/** On its way out the server takes nothing new: whoever asks is sent elsewhere, and answers under way go on. */
function refuseNew(response: ServerResponse): void {
	const title = 'The site is being restarted. Try again in a moment.';
	response.writeHead(503, { 'content-type': 'application/problem+json', connection: 'close', 'retry-after': '5', 'cache-control': 'no-store' });
	response.end(JSON.stringify({ type: 'about:blank', title, status: 503, code: 'not-ready', ok: false, going: true }));
}

const server = createServer((request, response) => {
	if (ending) return refuseNew(response);
	underWay++;
	response.once('close', () => {
		underWay--;
		if (ending && !underWay) ended();
	});
	linger(request, response);
	const address = clientAddress(request.socket.remoteAddress ?? '', request.headers['x-forwarded-for'] as string | undefined, proxies);
	request.headers[connectionHeader] = address;
	deliver(request, response, address).then(
		(done) => {
			if (!done) compress(request, response, () => handler(request, response));
		},
		() => response.destroy()
	);
});
// how long a body may take goes by whether it comes on (http/stillness.ts); headers have 60 s
server.requestTimeout = 0;
watchConnections(server);
// A connection that is kept is closed by whoever is in front, not by us under its next request (RFC 9112, 9.5): proxies keep theirs for 60 s.
server.keepAliveTimeout = 65_000;
server.listen(IANUA_PORT, IANUA_HOST, () => process.send?.('listening'));
server.on('error', cannotStart);

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

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
	process.on(signal, () => {
		if (ending) return;
		ending = true;
		const jobs = (globalThis as { ianuaStopJobs?: () => Promise<void> }).ianuaStopJobs?.() ?? Promise.resolve();
		const drained = new Promise<void>((done) => {
			ended = done;
			if (!underWay) done();
			setTimeout(done, IANUA_STOP_WAIT * 1000).unref();
		});
		void Promise.all([drained, jobs.catch(() => {})]).then(() => {
			server.close();
			server.closeAllConnections();
			process.exit(0);
		});
	});
}
process.on('disconnect', () => process.kill(process.pid, 'SIGTERM'));
