// Another website that offers PDFs: for trying and testing what is fetched from the web and watched.
// GET gives what PUT sent to a path, with ETag and Last-Modified; DELETE takes it away; /far leads on to the first, ?to= anywhere.
import { createHash } from 'node:crypto';
import { createServer, type Server } from 'node:http';

interface Offered {
	readonly bytes: Buffer;
	readonly changed: Date;
}

/** Offers `first` at /conditions.pdf; `keep` is told of what is put there later. */
export function startWebSource(port: number, first: Buffer, keep: (bytes: Buffer) => void = () => {}): Promise<{ server: Server; stop: () => void }> {
	const firstPath = '/conditions.pdf';
	const offered = new Map<string, Offered>([[firstPath, { bytes: first, changed: new Date() }]]);
	const server = createServer((request, response) => {
		const { pathname, searchParams } = new URL(request.url ?? '/', 'http://x');
		if (pathname === '/far') return response.writeHead(302, { location: firstPath }).end();
		if (pathname === '/round') return response.writeHead(302, { location: '/round' }).end();
		const away = searchParams.get('to');
		if (away) return response.writeHead(302, { location: away }).end();
		if (request.method === 'DELETE') {
			offered.delete(pathname);
			return response.writeHead(204).end();
		}
		if (request.method === 'PUT') {
			const chunks: Buffer[] = [];
			request.on('data', (chunk: Buffer) => chunks.push(chunk));
			request.on('end', () => {
				const bytes = Buffer.concat(chunks);
				offered.set(pathname, { bytes, changed: new Date() });
				if (pathname === firstPath) keep(bytes);
				response.writeHead(204).end();
			});
			return;
		}
		const there = offered.get(pathname);
		if (!there) return response.writeHead(404).end();
		const etag = `"${createHash('sha256').update(there.bytes).digest('hex').slice(0, 16)}"`;
		if (request.headers['if-none-match'] === etag) return response.writeHead(304, { etag }).end();
		response.writeHead(200, {
			'content-type': 'application/pdf',
			'content-length': there.bytes.length,
			etag,
			'last-modified': there.changed.toUTCString()
		});
		response.end(request.method === 'HEAD' ? undefined : there.bytes);
	});
	return new Promise((up) => server.listen(port, '127.0.0.1', () => up({ server, stop: () => void server.close() })));
}
