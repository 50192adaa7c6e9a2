// The web server: takes requests for files itself (large chunks, no detour), serves what was built for browsers, and hands all else to kit.
// Settings come from the environment; see docs/settings.md.
import compression from 'compression';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { Server, SSRManifest } from '@sveltejs/kit';
import { createReadableStream, getRequest, setResponse } from '@sveltejs/kit/node';
import sirv from 'sirv';
import { clientAddress } from '#server/http/proxies';
import { watchConnections } from '#server/http/stillness';
import { changesSoFar } from '#server/db/changes';
import { keep, mayBeKept, sameField, sendKept } from '#server/http/kept-pages';
import { log } from '#server/log';
import { countRequest, routed } from '#server/metrics';
import { deliverFile } from '#server/reading/deliver';
import { moveReadings } from '#server/reading/writer';
import { endWork } from '#server/work';
import { cannotStart, checkedSettings, outliveDatabase, tellStart } from './process';

const { IANUA_HOST, IANUA_ORIGIN, IANUA_PORT, IANUA_STOP_WAIT, proxies } = checkedSettings();

/** What Vite built beside this file, of one graph with it: no module is there twice. */
const built = join(import.meta.dirname, '..');
const browsers = join(built, '../client');

async function openKit(): Promise<{ server: Server; manifest: SSRManifest }> {
	const load = async (file: string): Promise<unknown> => import(/* @vite-ignore */ pathToFileURL(join(built, file)).href);
	const { Server: Kit } = (await load('index.js')) as { Server: new (manifest: SSRManifest) => Server };
	const { manifest } = (await load('manifest.js')) as { manifest: SSRManifest };
	const server = new Kit(manifest);
	await server.init({ env: process.env as Record<string, string>, read: (file) => createReadableStream(join(browsers, file)) });
	return { server, manifest };
}

const kit = await openKit().catch(cannotStart);

/** What was built for browsers, packed beforehand; under names made from the contents, so that they are never asked for again. */
const assets = sirv(browsers, {
	etag: true,
	gzip: true,
	brotli: true,
	setHeaders: (response, path) => {
		if (path.startsWith(`/${kit.manifest.appPath}/immutable/`) && response.statusCode === 200)
			response.setHeader('cache-control', 'public,max-age=31536000,immutable');
	}
});

/** Kit's answer to a request. Bodies are bounded by the guard and the intake. */
async function answer(request: IncomingMessage, response: ServerResponse, address: string): Promise<void> {
	let asked: Request;
	try {
		asked = await getRequest({ base: IANUA_ORIGIN, request });
	} catch {
		response.writeHead(400).end('Bad Request');
		return;
	}
	const begun = changesSoFar();
	const answered = await kit.server.respond(asked, { getClientAddress: () => address });
	routed.set(response, routed.get(asked) ?? 'none');
	const same = answered.headers.get(sameField);
	answered.headers.delete(sameField);
	await setResponse(response, same !== null && mayBeKept(request) ? await keep(request, answered, { begun, until: Number(same) }) : answered);
}

// what is built lies compressed already, files and pictures do not shrink: this is for pages and JSON
// Polka's types and Express's name the same two objects
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
	if (ending) {
		refuseNew(response);
		return;
	}
	underWay++;
	response.once('close', () => {
		underWay--;
		if (ending && !underWay) ended();
	});
	linger(request, response);
	const began = performance.now();
	response.once('close', () => countRequest(routed.get(response) ?? 'static', request.method ?? '', response.statusCode, (performance.now() - began) / 1000));
	const address = clientAddress(request.socket.remoteAddress ?? '', request.headers['x-forwarded-for'] as string | undefined, proxies);
	// without the database kit says what is the matter
	(mayBeKept(request) ? sendKept(request, response).catch(() => false) : Promise.resolve(false))
		.then((done) => done || deliverFile(request, response, address))
		.then((done) => {
			if (done) return;
			compress(request, response, () => assets(request, response, () => void answer(request, response, address).catch(() => response.destroy())));
		})
		.catch(() => response.destroy());
});
// how long a body may take goes by whether it comes on (http/stillness.ts); headers have 60 s
server.requestTimeout = 0;
watchConnections(server);
// A connection that is kept is closed by whoever is in front, not by us under its next request (RFC 9112, 9.5): proxies keep theirs for 60 s.
server.keepAliveTimeout = 65_000;
server.listen(IANUA_PORT, IANUA_HOST, () => {
	tellStart('web', { origin: IANUA_ORIGIN, listens: `${IANUA_HOST}:${IANUA_PORT}` });
	process.send?.('listening');
});
server.on('error', cannotStart);

outliveDatabase();

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
	process.on(signal, () => {
		if (ending) return;
		ending = true;
		log().info({ program: 'web', signal, underWay }, 'stopping');
		const jobs = endWork();
		const drained = new Promise<void>((done) => {
			ended = done;
			if (!underWay) done();
			setTimeout(done, IANUA_STOP_WAIT * 1000).unref();
		});
		void Promise.all([drained.then(moveReadings), jobs.catch(() => {})]).then(() => {
			server.close();
			server.closeAllConnections();
			log().info({ program: 'web' }, 'stopped');
			process.exit(0);
		});
	});
}
process.on('disconnect', () => process.kill(process.pid, 'SIGTERM'));
