// Another website, on another site in the browser's sense and under a strict content policy, on whose pages documents of Ianua are shown.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { createServer, type RequestListener } from 'node:http';
import { createServer as createSecure } from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { origin } from './help';

/** What it shows to its members, and to everybody. */
export const [kept, open] = ['lock-warden-handbook', 'cruising-guide'];

/** A certificate that nobody vouches for: the files of it and of its key. */
export function certificate() {
	const folder = mkdtempSync(join(tmpdir(), 'ianua-certificate-'));
	const [key, cert] = [join(folder, 'key.pem'), join(folder, 'cert.pem')];
	execFileSync('openssl', ['req', '-x509', '-newkey', 'rsa:2048', '-nodes', '-days', '2', '-subj', '/CN=localhost', '-keyout', key, '-out', cert], {
		stdio: 'ignore'
	});
	return { key, certificate: cert };
}

/** The club's website: a page with the element, and the address at which it answers a pass to whoever is signed in there. `ianua` is where the documents are. */
export async function startClub({ secure = false, ianua = origin() } = {}) {
	const state = { asked: [] as string[], pass: (): Promise<string | null> => Promise.resolve(null) };
	const policy = `default-src 'none'; script-src ${ianua} 'nonce-one'; frame-src ${ianua}; connect-src 'self' ${ianua}; style-src 'unsafe-inline'; form-action ${ianua}`;
	const answer: RequestListener = (request, response) => {
		const path = request.url ?? '/';
		if (path === '/reading') {
			response.setHeader('content-type', 'text/html').setHeader('content-security-policy', policy);
			response.end(`<!doctype html><html lang="en"><title>The club</title><h1>For members</h1>
				<script nonce="one">window.refusals = []; addEventListener('ianua:refused', (e) => refusals.push(e.detail));</script>
				<script src="${ianua}/ianua-document.js" async></script>
				<ianua-document src="${ianua}/d/${kept}" form="frame" pass="/pass" height="600"><a href="${ianua}/d/${kept}">Lock warden handbook</a></ianua-document>`);
			return;
		}
		if (path === '/open') {
			response.setHeader('content-type', 'text/html').setHeader('content-security-policy', policy);
			response.end(`<!doctype html><html lang="en"><title>The club</title><h1>For everybody</h1>
				<script nonce="one">window.told = []; for (const type of ['opened', 'page', 'saved', 'resize']) addEventListener('ianua:' + type, (e) => told.push([type, e.detail]));</script>
				<script src="${ianua}/ianua-document.js" async></script>
				<p><ianua-document src="${ianua}/d/${open}" form="button" press="over" words="Read the guide" colour="#8a1c1c"></ianua-document></p>
				<ianua-document id="framed" src="${ianua}/d/${open}" form="frame" start="2" theme="dark" colour="#8a1c1c" background="f4efe6"></ianua-document>`);
			return;
		}
		if (path === '/form') {
			void state.pass().then((given) => {
				response.setHeader('content-type', 'text/html').setHeader('content-security-policy', policy);
				response.end(`<!doctype html><html lang="en"><title>The club</title><h1>For members</h1>
					<form method="post" action="${ianua}/embed/${kept}/pass" target="handbook"><input type="hidden" name="pass" value="${given ?? ''}"><button>Read the handbook</button></form>
					<iframe name="handbook" title="Lock warden handbook" width="900" height="700"></iframe>`);
			});
			return;
		}
		if (path !== '/pass') return response.writeHead(404).end();
		state.asked.push(path);
		void state.pass().then((given) => (given === null ? response.writeHead(404).end() : response.setHeader('content-type', 'application/jwt').end(given)));
	};
	const { key, certificate: cert } = certificate();
	const server = secure ? createSecure({ key: readFileSync(key), cert: readFileSync(cert) }, answer) : createServer(answer);
	await new Promise<void>((up) => server.listen(0, '127.0.0.1', up));
	// a server that listens has a port
	const { port } = server.address() as { port: number };
	return {
		// another site than ours, which is at 127.0.0.1: the cookies of ours are a third party's there
		host: `localhost:${port}`,
		state,
		stop: () => {
			server.close();
			server.closeAllConnections();
		}
	};
}
